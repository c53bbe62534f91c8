import { useQueryClient } from '@tanstack/react-query';
import type { Tray } from '../../api/client';
import { api, ask } from '../../api/client';
import { useWrite } from '../../api/useWrite';
import { useKept } from '../../outbox/drafts';
import { usePerson } from '../../session/session';
import { keys } from '../../api/keys';
import { Button } from '../../ui/button';
import { TextField } from '../../ui/field';
import { Notice } from '../../ui/states';

interface Whose {
  ownerName: string;
  ownerContact: string;
  machineName: string;
  version: number;
}

/** Whose a tray is, put right: a slip of the pen, the wrong owner, the wrong machine. */
export function WhoseForm({ tray, onClose }: { tray: Tray; onClose: () => void }) {
  const { ownerName, ownerContact, machineName } = tray.facts;
  const queries = useQueryClient();
  const [draft, keep, clear] = useKept<Whose>(`${usePerson().id}:${tray.number}:whose`, {
    ownerName,
    ownerContact,
    machineName,
    version: tray.version,
  });
  const close = (): void => {
    clear();
    onClose();
  };
  const { run, busy, problem } = useWrite(
    () => ask(api.PUT('/api/trays/{number}/whose', { params: { path: { number: tray.number } }, body: draft })),
    {
      changes: [keys.bench, keys.owners],
      done: (now) => {
        queries.setQueryData(keys.tray(tray.number), now);
        close();
      },
    },
  );
  const errors = problem?.errors ?? {};
  const box = (label: string, name: 'ownerName' | 'ownerContact' | 'machineName') => (
    <TextField
      label={label}
      value={draft[name]}
      maxLength={80}
      problem={errors[name]?.[0]}
      onChange={(event) => keep({ ...draft, [name]: event.target.value })}
    />
  );
  return (
    <form
      aria-label="Whose it is"
      className="grid items-start gap-3 md:grid-cols-3"
      onSubmit={(event) => {
        event.preventDefault();
        void run();
      }}
    >
      {box('Owner', 'ownerName')}
      {box('How to reach them', 'ownerContact')}
      {box('Machine', 'machineName')}
      {problem && Object.keys(errors).length === 0 && (
        <div className="md:col-span-3">
          <Notice title={problem.title}>{problem.detail}</Notice>
        </div>
      )}
      <span className="flex gap-3 md:col-span-3">
        <Button type="submit" look="hands" disabled={busy}>
          Save
        </Button>
        <Button look="quiet" onClick={close}>
          Leave it as it was
        </Button>
      </span>
    </form>
  );
}
