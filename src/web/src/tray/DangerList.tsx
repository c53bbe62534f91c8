import type { Station, Tray } from '../api/client';
import { stationWord, trayPath } from '../shell/stations';
import { LinkButton } from '../ui/button';
import { Notice } from '../ui/states';

/** What is unsafe about the machine, on every page of its tray until it is settled: nothing that runs the engine is taken. */
export function DangerList({ tray, station }: { tray: Tray; station: Station }) {
  if (tray.dangers.length === 0 || tray.facts.waitsFor === 'handedBack') return null;
  return (
    <Notice title="This engine must not run yet.">
      <ul>
        {tray.dangers.map(({ danger, shown }) => (
          <li key={danger.id} className="flex flex-wrap items-center gap-x-3 py-0.5">
            <span>
              <span className="font-strong">{danger.label}.</span> {shown.join('; ')}. {danger.settle}
            </span>
            {danger.at !== station && (
              <LinkButton look="quiet" className="px-0!" to={trayPath(tray.number, danger.at)}>
                To {stationWord(danger.at)}
              </LinkButton>
            )}
          </li>
        ))}
      </ul>
    </Notice>
  );
}
