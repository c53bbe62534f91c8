import { Check } from 'lucide-react';
import { Link } from 'react-router';
import type { FaultOutcome, FaultWords, OpenFault, Station, Trace, TraceNote } from '../../api/client';
import { stationWord, trayPath } from '../../shell/stations';
import { Button } from '../../ui/button';
import { Notice } from '../../ui/states';
import { moment } from '../../units/format';
import { OpenList } from './OpenList';

interface Props {
  tray: number;
  trace: Trace;
  open: OpenFault[];
  people: Record<string, string>;
  words: FaultWords;
  mayRecord: boolean;
  record: (note: TraceNote) => Promise<boolean>;
}

/** How a fault that was found came to its end. */
const ended: Record<FaultOutcome, string> = {
  fixed: 'Put right',
  referred: 'Sent on',
  left: 'Left as it is',
  noCure: 'Done, did not cure it',
  notIt: 'Not it',
  nothingFound: 'None found',
  open: 'Open',
};

/** What is open, what was wrong, what was tried in vain and what is not it; each with a way on or back. */
export function FoundList({ tray, trace, open, people, words, mayRecord, record }: Props) {
  const { found, ruledOut, noCure, nothingFound } = trace.evidence;
  const settle = (causeId: string | null, outcome: FaultOutcome) => (): void =>
    void record({ kind: 'fault', causeId, outcome, reason: null, ownerSaid: null, done: null });
  const label = (id: string): string => words.causes.find((c) => c.id === id)?.label ?? id;
  return (
    <>
      {nothingFound && (
        <Notice tone="ok" title="Closed without a cause.">
          <Button look="quiet" disabled={!mayRecord} onClick={settle(null, 'open')}>
            Open the trace again
          </Button>
        </Notice>
      )}
      <OpenList tray={tray} open={open} trace={trace} mayRecord={mayRecord} record={record} />
      {found.length > 0 && (
        <section aria-label="What was wrong" className="bg-ok-soft border-ok rounded-xl border-l-4 px-4 py-2.5">
          <h2 className="text-lead">
            {found.length === 1 ? 'What was wrong' : `What was wrong: ${found.length} things`}
          </h2>
          <ul>
            {found.map((fault) => {
              const station = fault.fromLine?.split('/')[0] as Station | undefined;
              return (
                <li key={fault.causeId} className="flex flex-wrap items-center gap-x-2 py-1">
                  <Check aria-hidden size={20} className="text-ok shrink-0" />
                  <span className="min-w-0 flex-1 basis-56 leading-tight">
                    <span className="font-bold">{fault.label}</span>
                    <span className="text-mute block text-note">
                      {station ? (
                        <>
                          Put right, as the readings at{' '}
                          <Link className="underline underline-offset-3" to={trayPath(tray, station)}>
                            {stationWord(station)}
                          </Link>{' '}
                          show.
                        </>
                      ) : (
                        `${ended[fault.outcome]}, ${people[fault.entryId] ?? ''}, ${moment(fault.at)}`
                      )}
                      {fault.done && <span className="block">{fault.done}</span>}
                      {fault.outcome === 'left' && (
                        <span className="block">
                          {fault.reason} The owner: {fault.ownerSaid}
                        </span>
                      )}
                    </span>
                  </span>
                  {station && (
                    <Button
                      look="hands"
                      disabled={!mayRecord}
                      aria-label={`It was that: ${fault.label}`}
                      onClick={settle(fault.causeId, 'fixed')}
                    >
                      It was that
                    </Button>
                  )}
                  {fault.outcome === 'fixed' && !station && (
                    <Button
                      look="quiet"
                      disabled={!mayRecord}
                      aria-label={`It did not cure it: ${fault.label}`}
                      onClick={settle(fault.causeId, 'noCure')}
                    >
                      It did not cure it
                    </Button>
                  )}
                  <Button
                    look="quiet"
                    disabled={!mayRecord}
                    aria-label={`It was not that: ${fault.label}`}
                    onClick={settle(fault.causeId, 'notIt')}
                  >
                    It was not that
                  </Button>
                </li>
              );
            })}
          </ul>
        </section>
      )}
      {ruledOut.length > 0 && (
        <p className="text-mute flex flex-wrap items-center gap-x-3">
          Said not to be it:
          {ruledOut.map((id) => (
            <span key={id} className="inline-flex items-center">
              {label(id)}
              {noCure.includes(id) && ' (done, did not cure it)'}
              <Button
                look="quiet"
                disabled={!mayRecord}
                aria-label={`Back in question: ${label(id)}`}
                onClick={settle(id, 'open')}
              >
                Back in question
              </Button>
            </span>
          ))}
        </p>
      )}
    </>
  );
}
