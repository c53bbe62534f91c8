import { Check } from 'lucide-react';
import { Link } from 'react-router';
import type { FaultWords, Station, Trace, TraceNote } from '../../api/client';
import { stationWord, trayPath } from '../../shell/stations';
import { Button } from '../../ui/button';
import { Notice } from '../../ui/states';
import { moment } from '../../units/format';

interface Props {
  tray: number;
  trace: Trace;
  people: Record<string, string>;
  words: FaultWords;
  mayRecord: boolean;
  record: (note: TraceNote) => Promise<boolean>;
}

/** What is settled: what was wrong, what was said not to be it, and a way back from either. */
export function FoundList({ tray, trace, people, words, mayRecord, record }: Props) {
  const { found, ruledOut, nothingFound } = trace.evidence;
  const settle = (causeId: string | null, outcome: 'fixed' | 'notIt' | 'open') => (): void =>
    void record({ kind: 'fault', causeId, outcome });
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
                        `${fault.outcome === 'referred' ? 'Referred' : 'Put right'}, confirmed by ${people[fault.entryId] ?? ''}, ${moment(fault.at)}`
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
