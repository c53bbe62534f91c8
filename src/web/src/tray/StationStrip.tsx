import { ChevronDown, ChevronLeft, ChevronRight } from 'lucide-react';
import { useState } from 'react';
import { NavLink } from 'react-router';
import type { Station, StationView } from '../api/client';
import { stations, stationWord, trayPath } from '../shell/stations';
import { RuleTicks } from '../ui/rule';

const TICKS_EACH = 20;

/**
 * The stations in bench order, on a steel rule. Any of them can be opened at any time. On a phone it folds to the one that
 * is open, with the one before and the one after; a press unfolds the rest.
 */
export function StationStrip({ tray, views, station }: { tray: number; views: StationView[]; station: Station }) {
  const [unfolded, setUnfolded] = useState(false);
  const at = views.findIndex((view) => view.station === station);
  const here = views[at];
  const open = views.filter((view) => view.open > 0 && view.station !== station).length;
  const tone = (view: StationView): string => (view.open > 0 && !view.waiting ? 'text-dawn font-bold' : 'text-mute');
  return (
    <nav
      aria-label="Stations"
      className="border-line-strong/60 overflow-hidden rounded-md border bg-[linear-gradient(var(--steel),var(--steel-2))]"
    >
      {here && (
        <div className="flex items-stretch sm:hidden">
          <Step tray={tray} view={views[at - 1]} side="before" />
          <button
            type="button"
            aria-expanded={unfolded}
            onClick={() => setUnfolded(!unfolded)}
            className={`bg-sheet flex min-h-12 min-w-0 flex-1 items-center justify-between gap-2 px-3 py-1 text-left
              leading-tight shadow-[inset_0_-4px_0_var(--dawn)]`}
          >
            <span className="min-w-0">
              <span className="text-lead block font-strong">{stationWord(here.station)}</span>
              <span className={`text-note block truncate ${tone(here)}`}>
                {here.words}
                {open > 0 && <span className="text-mute font-normal"> · open at {open} more</span>}
              </span>
            </span>
            <ChevronDown aria-hidden size={20} className={unfolded ? 'rotate-180' : ''} />
          </button>
          <Step tray={tray} view={views[at + 1]} side="after" />
        </div>
      )}
      <div
        className={`relative grid max-sm:grid-cols-4! sm:max-lg:grid-cols-6! lg:auto-cols-fr lg:grid-flow-col ${unfolded ? '' : 'max-sm:hidden'}`}
      >
        <RuleTicks every={TICKS_EACH} of={TICKS_EACH * stations.length} height={12} />
        {views.map((view) => (
          <NavLink
            key={view.station}
            to={trayPath(tray, view.station)}
            onClick={() => setUnfolded(false)}
            className={`aria-[current=page]:bg-sheet relative min-h-14 px-2.5 pt-4 pb-1.5 leading-tight hover:bg-white/30
              aria-[current=page]:shadow-[inset_0_-4px_0_var(--dawn)]`}
          >
            <span className="text-lead block font-strong">{stationWord(view.station)}</span>
            <span className={`text-note block ${tone(view)}`}>{view.words}</span>
          </NavLink>
        ))}
      </div>
    </nav>
  );
}

/** The station before or after, a thumb's width. */
function Step({ tray, view, side }: { tray: number; view: StationView | undefined; side: 'before' | 'after' }) {
  const Arrow = side === 'before' ? ChevronLeft : ChevronRight;
  if (!view) return <span className="w-12" />;
  return (
    <NavLink
      to={trayPath(tray, view.station)}
      aria-label={`${side === 'before' ? 'Station before' : 'Station after'}: ${stationWord(view.station)}`}
      className="flex w-12 items-center justify-center"
    >
      <Arrow aria-hidden size={24} />
    </NavLink>
  );
}
