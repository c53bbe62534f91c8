import { useState } from 'react';
import type { LedgerLine, LedgerNote } from '../../api/client';
import { useKept } from '../../outbox/drafts';
import { Button } from '../../ui/button';
import { TextField } from '../../ui/field';

interface Props {
  /** Where what is typed is kept. */
  draft: string;
  line: LedgerLine;
  busy: boolean;
  errors: Record<string, string[]>;
  onRecord: (note: LedgerNote) => Promise<boolean>;
}

/** A new part that was bad out of its bag: it is out again, and goes back against item and supplier. */
export function CameBad({ draft, line, busy, errors, onRecord }: Props) {
  const [kept, keep, drop] = useKept(draft, { what: '', supplier: '' });
  const [open, setOpen] = useState(kept.what !== '');
  const { label } = line.part;
  if (!open) {
    return (
      <Button look="quiet" className="px-0!" aria-label={`It came bad: ${label}`} onClick={() => setOpen(true)}>
        It came bad
      </Button>
    );
  }
  return (
    <form
      aria-label={`Came bad: ${label}`}
      className="grid w-full gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        void onRecord({
          kind: 'cameBad',
          part: line.part.key,
          what: kept.what.trim(),
          supplier: kept.supplier.trim() || null,
        }).then((settled) => {
          if (settled) drop();
        });
      }}
    >
      <TextField
        label="What is wrong with it"
        placeholder="leaks at its stem"
        value={kept.what}
        maxLength={120}
        problem={errors['note.what']?.[0]}
        onChange={(event) => keep({ ...kept, what: event.target.value })}
      />
      <TextField
        label="Who from"
        {...(line.fitted?.item ? { hint: 'Empty: whoever it was last received from' } : {})}
        value={kept.supplier}
        maxLength={120}
        problem={errors['note.supplier']?.[0]}
        onChange={(event) => keep({ ...kept, supplier: event.target.value })}
      />
      <span className="flex flex-wrap gap-2">
        <Button type="submit" disabled={busy || kept.what.trim().length < 3} aria-label={`Out, it came bad: ${label}`}>
          Out, it came bad
        </Button>
        <Button
          look="quiet"
          onClick={() => {
            drop();
            setOpen(false);
          }}
        >
          Leave it
        </Button>
      </span>
    </form>
  );
}
