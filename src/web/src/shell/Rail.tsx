import { NavLink } from 'react-router';
import type { BenchTray } from '../api/client';
import { useBench } from './queries';
import { waits, waitWord } from './words';
import { stationWord, trayPath } from './stations';

const short = (tray: BenchTray): string =>
  tray.needsHands || !tray.waitNote
    ? `${stationWord(tray.station).toLowerCase()}${tray.openLines > 0 ? `, ${tray.openLines} open` : ''}`
    : tray.waitNote;

/** Every tray by what it waits for, from night to dawn. */
export function Rail({ onGo }: { onGo?: () => void }) {
  const bench = useBench();
  const trays = (bench.data?.trays ?? []).filter((tray) => tray.waitsFor !== 'handedBack');
  return (
    <nav aria-label="Trays" className="flex-1 overflow-y-auto pb-4">
      {waits.map((wait) => {
        const here = trays.filter((t) => (t.needsHands ? wait === 'hands' : t.waitsFor === wait));
        return here.length === 0 ? null : (
          <section key={wait} aria-label={waitWord[wait]}>
            <h2 className="text-night-mute flex justify-between px-4 pt-3 pb-1 text-note font-medium">
              <span>{waitWord[wait]}</span>
              <span className="num">{here.length}</span>
            </h2>
            {here.map((tray) => (
              <NavLink
                key={tray.number}
                to={trayPath(tray.number)}
                onClick={onGo}
                className={`aria-[current=page]:bg-paper aria-[current=page]:text-ink
                  aria-[current=page]:shadow-[inset_4px_0_0_var(--dawn)] text-night-text grid min-h-11
                  grid-cols-[2.25rem_1fr] items-center gap-2.5 px-4 py-1.5 hover:bg-white/10`}
              >
                <span className="num text-right text-part font-bold">{tray.number}</span>
                <span className="min-w-0 leading-tight">
                  <span className="line-clamp-2">{tray.machineName}</span>
                  <span className="text-night-mute in-aria-[current=page]:text-mute block truncate text-note">
                    {short(tray)}
                  </span>
                </span>
              </NavLink>
            ))}
          </section>
        );
      })}
    </nav>
  );
}
