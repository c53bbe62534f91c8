import { Search } from 'lucide-react';
import { useMemo, useState, type RefObject } from 'react';
import { NavLink, useNavigate } from 'react-router';
import type { BenchTray } from '../api/client';
import { useBench } from './queries';
import { waits, waitWord } from './words';
import { stationWord, trayPath } from '../stations/registry';

const short = (tray: BenchTray): string =>
  tray.needsHands || !tray.waitNote
    ? `${stationWord(tray.station).toLowerCase()}${tray.openLines > 0 ? `, ${tray.openLines} open` : ''}`
    : tray.waitNote;

/** Every tray by what it waits for, from night to dawn. */
export function Rail({ findRef, onGo }: { findRef?: RefObject<HTMLInputElement | null>; onGo?: () => void }) {
  const bench = useBench();
  const navigate = useNavigate();
  const [find, setFind] = useState('');
  const wanted = find.trim().toLowerCase();
  const trays = useMemo(
    () =>
      (bench.data?.trays ?? []).filter((t) =>
        wanted === ''
          ? t.waitsFor !== 'handedBack'
          : `${t.number} ${t.machineName} ${t.ownerName} ${t.complaint}`.toLowerCase().includes(wanted),
      ),
    [bench.data, wanted],
  );
  const first = trays.find((t) => String(t.number) === wanted) ?? trays[0];

  return (
    <nav aria-label="Trays" className="flex-1 overflow-y-auto pb-4">
      <form
        role="search"
        className="border-night-mute/50 mx-3 mt-1 mb-1 flex items-center gap-2 rounded-lg border px-3"
        onSubmit={(event) => {
          event.preventDefault();
          if (first && wanted) {
            setFind('');
            void navigate(trayPath(first.number));
            onGo?.();
          }
        }}
      >
        <Search aria-hidden size={18} />
        <input
          ref={findRef}
          aria-label="Find a tray by number, machine or owner"
          placeholder="Find  /"
          value={find}
          onChange={(event) => setFind(event.target.value)}
          className="placeholder:text-night-mute min-h-11 w-full bg-transparent outline-none"
        />
      </form>
      {wanted !== '' && trays.length === 0 && <p className="text-night-mute px-4 py-2">No tray answers to that.</p>}
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
                className="aria-[current=page]:bg-paper aria-[current=page]:text-ink aria-[current=page]:shadow-[inset_4px_0_0_var(--dawn)] text-night-text grid min-h-11 grid-cols-[2.25rem_1fr] items-center gap-2.5 px-4 py-1.5 hover:bg-white/10"
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
