import { useState } from 'react';
import { Link } from 'react-router';
import type { FaultOutcome, TraceNote } from '../../api/client';
import { useKept } from '../../outbox/drafts';
import { usePerson } from '../../session/session';
import { trayPath } from '../../shell/stations';
import { Button } from '../../ui/button';
import { TextField } from '../../ui/field';

interface Props {
  tray: number;
  causeId: string;
  label: string;
  refer: boolean;
  mayRecord: boolean;
  record: (note: TraceNote) => Promise<boolean>;
}

/** What became of a fault: put right, done in vain, not it, sent on, or left with the owner's word. Nothing is recorded before it is known. */
export function FixDone({ tray, causeId, label, refer, mayRecord, record }: Props) {
  const person = usePerson();
  const [open, setOpen] = useState<'notRun' | 'leave' | null>(null);
  const [done, keepDone, clearDone] = useKept(`${person.id}:${tray}:done:${causeId}`, '');
  const settle = async (outcome: FaultOutcome): Promise<void> => {
    const words = outcome === 'fixed' && done.trim() !== '' ? done.trim() : null;
    if (await record({ kind: 'fault', causeId, outcome, reason: null, ownerSaid: null, done: words })) clearDone();
  };
  const toggle = (what: 'notRun' | 'leave') => (): void => setOpen(open === what ? null : what);
  return (
    <div className="mt-2.5 flex flex-wrap items-end gap-2">
      <span className="w-full font-strong">{refer ? 'Is it that?' : 'Done. Did that cure it?'}</span>
      {!refer && (
        <div className="w-full max-w-prose">
          <TextField
            label="What was done, in your words"
            hint="Printed on the report; left empty it says the usual."
            value={done}
            maxLength={300}
            onChange={(event) => keepDone(event.target.value)}
          />
        </div>
      )}
      {refer ? (
        <Button look="hands" disabled={!mayRecord} onClick={() => void settle('referred')}>
          Yes, sent on
        </Button>
      ) : (
        <Button look="hands" disabled={!mayRecord} onClick={() => void settle('fixed')}>
          Yes, it was that
        </Button>
      )}
      {!refer && (
        <Button disabled={!mayRecord} onClick={() => void settle('noCure')}>
          Done, did not cure it
        </Button>
      )}
      <Button disabled={!mayRecord} onClick={() => void settle('notIt')}>
        Looked, it is not that
      </Button>
      <Button look="quiet" aria-expanded={open === 'leave'} onClick={toggle('leave')}>
        Leave it as it is
      </Button>
      {!refer && (
        <Button look="quiet" aria-expanded={open === 'notRun'} onClick={toggle('notRun')}>
          Not run yet
        </Button>
      )}
      {open === 'notRun' && (
        <p className="w-full leading-snug">
          Put it together, then{' '}
          <Link className="underline underline-offset-4" to={trayPath(tray, 'proving')}>
            run it at Prove
          </Link>{' '}
          and come back here: it stays open until you know.
        </p>
      )}
      {open === 'leave' && <Leave tray={tray} causeId={causeId} label={label} mayRecord={mayRecord} record={record} />}
    </div>
  );
}

/** It is there and stays: why, and what the owner says to it. Both are printed. */
function Leave({ tray, causeId, label, mayRecord, record }: Omit<Props, 'refer'>) {
  const person = usePerson();
  const [kept, keep, clear] = useKept(`${person.id}:${tray}:left:${causeId}`, { reason: '', ownerSaid: '' });
  const [tried, setTried] = useState(false);
  const problem = (words: string, ask: string): string | undefined =>
    tried && words.trim().length < 10 ? ask : undefined;
  return (
    <form
      className="grid w-full max-w-prose gap-3"
      aria-label={`Leave it as it is: ${label}`}
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        setTried(true);
        if (kept.reason.trim().length < 10 || kept.ownerSaid.trim().length < 10) return;
        void record({
          kind: 'fault',
          causeId,
          outcome: 'left',
          reason: kept.reason.trim(),
          ownerSaid: kept.ownerSaid.trim(),
          done: null,
        }).then((done) => {
          if (done) clear();
        });
      }}
    >
      <TextField
        label="Why it stays as it is"
        value={kept.reason}
        maxLength={300}
        problem={problem(kept.reason, 'Say in at least 10 characters why; it is printed on the report.')}
        onChange={(event) => keep({ ...kept, reason: event.target.value })}
      />
      <TextField
        label="What the owner says to it, and when"
        value={kept.ownerSaid}
        maxLength={300}
        problem={problem(kept.ownerSaid, 'Write in at least 10 characters what the owner said.')}
        onChange={(event) => keep({ ...kept, ownerSaid: event.target.value })}
      />
      <p>
        <Button type="submit" disabled={!mayRecord}>
          It stays as it is
        </Button>
      </p>
    </form>
  );
}
