import { useKept } from '../../outbox/drafts';
import { Button } from '../../ui/button';
import { TextField } from '../../ui/field';

interface Props {
  /** Where what is typed is kept. */
  draft: string;
  /** What the part is called. */
  label: string;
  /** Fewest characters of a reason. The part is out and in again in one go: a reason that is refused would leave it out. */
  shortest: number;
  busy: boolean;
  problem: string | undefined;
  /** True when it was taken. */
  onSay: (because: string) => Promise<boolean>;
}

/** Not the usual order, way round or hole, and right all the same: so on this machine, because. */
export function SoHere({ draft, label, shortest, busy, problem, onSay }: Props) {
  const [because, keep, drop] = useKept(draft, '');
  return (
    <form
      aria-label={`So on this machine: ${label}`}
      className="flex min-w-0 flex-1 basis-80 flex-wrap items-end gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        void onSay(because).then((settled) => {
          if (settled) drop();
        });
      }}
    >
      <div className="min-w-0 flex-1 basis-56">
        <TextField
          label="So on this machine, because"
          value={because}
          hint={`At least ${shortest} characters`}
          maxLength={200}
          problem={problem}
          onChange={(event) => keep(event.target.value)}
        />
      </div>
      <Button type="submit" disabled={busy || because.trim().length < shortest}>
        It is so
      </Button>
    </form>
  );
}
