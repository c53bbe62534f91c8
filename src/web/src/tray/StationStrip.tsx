import { NavLink } from 'react-router';
import type { StationView } from '../api/client';
import { stationWord, trayPath } from '../shell/words';
import { RuleTicks } from '../ui/rule';

const note = ({ station, open, total, waiting }: StationView): string => {
  if (station === 'faults') return open === 0 ? 'settled' : waiting ? 'not begun' : 'open';
  if (station === 'handover') return open === 0 ? 'done' : waiting ? 'not yet' : 'ready';
  if (station === 'strip')
    return waiting ? 'not begun' : open === 0 ? (total === 0 ? 'stays shut' : 'all out') : `${open} to go`;
  if (station === 'cleaning')
    return waiting ? 'not begun' : open === 0 ? (total === 0 ? 'nothing to do' : 'done') : `${open} open`;
  if (station === 'build') return waiting || total === 0 ? 'nothing out' : open === 0 ? 'all in' : `${open} open`;
  if (waiting) return 'no sheet yet';
  if (total === 0) return 'no lines';
  return open === 0 ? (station === 'intake' || station === 'kits' ? 'done' : 'all good') : `${open} of ${total} open`;
};

/** The stations in bench order, on a steel rule. Any of them can be opened at any time. */
export function StationStrip({ tray, stations }: { tray: number; stations: StationView[] }) {
  return (
    <nav
      aria-label="Stations"
      className="border-line-strong/60 relative grid grid-cols-10 overflow-hidden rounded-md border bg-[linear-gradient(var(--steel),var(--steel-2))] max-lg:grid-cols-5"
    >
      <RuleTicks every={20} of={200} height={12} />
      {stations.map((s) => (
        <NavLink
          key={s.station}
          to={trayPath(tray, s.station)}
          className="aria-[current=page]:bg-sheet relative min-h-14 px-2.5 pt-4 pb-1.5 leading-tight hover:bg-white/30 aria-[current=page]:shadow-[inset_0_-4px_0_var(--dawn)]"
        >
          <span className="block text-[1.0625rem] font-[600]">{stationWord[s.station]}</span>
          <span className={`block text-[0.9375rem] ${s.open > 0 && !s.waiting ? 'text-dawn font-[650]' : 'text-mute'}`}>
            {note(s)}
          </span>
        </NavLink>
      ))}
    </nav>
  );
}
