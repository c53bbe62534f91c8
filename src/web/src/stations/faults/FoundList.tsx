import { Check } from 'lucide-react';
import { Link } from 'react-router';
import type { Station, Trace } from '../../api/client';
import { stationWord, trayPath } from '../../shell/words';
import { moment } from '../../units/format';

/** What was wrong, once it is known: confirmed by hand, or shown by readings before and after. */
export function FoundList({ tray, trace, people }: { tray: number; trace: Trace; people: Record<string, string> }) {
  const { found } = trace.evidence;
  if (found.length === 0) return null;
  return (
    <section aria-label="What was wrong" className="bg-ok-soft border-ok rounded-xl border-l-4 px-4 py-2.5">
      <h2 className="text-[1.0625rem]">
        {found.length === 1 ? 'What was wrong' : `What was wrong: ${found.length} things`}
      </h2>
      <ul>
        {found.map((fault) => {
          const station = fault.fromLine?.split('/')[0] as Station | undefined;
          return (
            <li key={fault.causeId} className="flex items-start gap-2 py-1">
              <Check aria-hidden size={20} className="text-ok mt-0.5 shrink-0" />
              <span className="leading-tight">
                <span className="font-[650]">{fault.label}</span>
                <span className="text-mute block text-[0.9375rem]">
                  {station ? (
                    <>
                      Put right, as the readings at{' '}
                      <Link className="underline underline-offset-3" to={trayPath(tray, station)}>
                        {stationWord[station]}
                      </Link>{' '}
                      show. Confirm it under the causes if it was the fault.
                    </>
                  ) : (
                    <>
                      {fault.outcome === 'referred' ? 'Referred' : 'Put right'}, confirmed by {people[fault.entryId]},{' '}
                      {moment(fault.at)}
                    </>
                  )}
                </span>
              </span>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
