import { NavLink } from 'react-router';
import type { StationView } from '../api/client';
import { stations, stationWord, trayPath } from '../stations/registry';
import { RuleTicks } from '../ui/rule';

const TICKS_EACH = 20;

/** The stations in bench order, on a steel rule. Any of them can be opened at any time. */
export function StationStrip({ tray, views }: { tray: number; views: StationView[] }) {
  return (
    <nav
      aria-label="Stations"
      className="border-line-strong/60 relative grid overflow-hidden rounded-md border bg-[linear-gradient(var(--steel),var(--steel-2))] max-sm:grid-cols-4! sm:max-lg:grid-cols-6! lg:auto-cols-fr lg:grid-flow-col"
    >
      <RuleTicks every={TICKS_EACH} of={TICKS_EACH * stations.length} height={12} />
      {views.map((view) => (
        <NavLink
          key={view.station}
          to={trayPath(tray, view.station)}
          className="aria-[current=page]:bg-sheet relative min-h-14 px-2.5 pt-4 pb-1.5 leading-tight hover:bg-white/30 aria-[current=page]:shadow-[inset_0_-4px_0_var(--dawn)]"
        >
          <span className="text-lead block font-strong">{stationWord(view.station)}</span>
          <span className={`text-note block ${view.open > 0 && !view.waiting ? 'text-dawn font-bold' : 'text-mute'}`}>
            {view.words}
          </span>
        </NavLink>
      ))}
    </nav>
  );
}
