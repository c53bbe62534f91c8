import { useState } from 'react';
import type { OpenFault, Trace, TraceNote } from '../../api/client';
import { Button } from '../../ui/button';
import { FixDone } from './FixDone';

interface Props {
  tray: number;
  open: OpenFault[];
  trace: Trace;
  mayRecord: boolean;
  record: (note: TraceNote) => Promise<boolean>;
}

/** What was seen to be wrong and has not come to its end: it stands in the way of handing back. */
export function OpenList({ tray, open, trace, mayRecord, record }: Props) {
  const [chosen, setChosen] = useState<string | null>(null);
  if (open.length === 0) return null;
  const answer = (findingId: string, said: 'present' | 'absent') => (): void =>
    void record({
      kind: 'findings',
      checkId: null,
      fromOwner: false,
      answers: [{ findingId, said, doubtful: false }],
    });
  return (
    <section aria-label="Open" className="bg-unsure-soft border-unsure rounded-xl border-l-4 px-4 py-2.5">
      <h2 className="text-lead">{open.length === 1 ? 'Open' : `Open: ${open.length} things`}</h2>
      <ul>
        {open.map((fault) => (
          <li key={fault.id} className="flex flex-wrap items-center gap-x-2 py-1">
            <span className="min-w-0 flex-1 basis-56 leading-tight">
              <span className="font-bold">{fault.label}</span>
              <span className="text-mute block text-note">
                {fault.word}
                {fault.seen !== fault.label && `; seen: ${fault.seen.toLowerCase()}`}
              </span>
            </span>
            {fault.causeId === null ? (
              <>
                <Button
                  disabled={!mayRecord}
                  aria-label={`Tried again, gone: ${fault.label}`}
                  onClick={answer(fault.findingId, 'absent')}
                >
                  Tried again, gone
                </Button>
                {fault.state === 'notTried' && (
                  <Button
                    disabled={!mayRecord}
                    aria-label={`Still there: ${fault.label}`}
                    onClick={answer(fault.findingId, 'present')}
                  >
                    Still there
                  </Button>
                )}
              </>
            ) : (
              <Button
                look="quiet"
                aria-expanded={chosen === fault.id}
                aria-label={`What became of it: ${fault.label}`}
                onClick={() => setChosen(chosen === fault.id ? null : fault.id)}
              >
                What became of it
              </Button>
            )}
            {chosen === fault.id && fault.causeId !== null && (
              <div className="w-full">
                <FixDone
                  tray={tray}
                  causeId={fault.causeId}
                  label={fault.label}
                  refer={trace.causes.some(({ cause }) => cause.id === fault.causeId && cause.refer)}
                  mayRecord={mayRecord}
                  record={record}
                />
              </div>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
