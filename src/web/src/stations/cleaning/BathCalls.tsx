import { BellRing } from 'lucide-react';
import { Link } from 'react-router';
import { BasketTime } from './BathPanel';
import { useNow } from './useNow';
import { useBaths } from '../../shell/queries';
import { useTitle } from '../../shell/title';
import { device } from '../../outbox/device';
import { Button } from '../../ui/button';
import { useState } from 'react';

/** Where it is kept which calls somebody has heard. */
const HEARD = 'heard-calls';

/** What is in the baths, on every page: it counts down, says when a bath is not warm enough, and calls when time is up. */
export function BathCalls() {
  const baths = useBaths();
  const now = useNow(baths.data?.now);
  const baskets = (baths.data?.baths ?? []).flatMap(({ state }) =>
    state.baskets.map((basket) => ({ basket, bath: state.bath.label })),
  );
  const due = baskets.filter(({ basket }) => basket.doneAt !== null && Date.parse(basket.doneAt) <= now);
  const called = due.length === 0 ? '' : `Bath, time is up: tray ${due.map(({ basket }) => basket.tray).join(', ')}`;
  // Somebody has heard of these; each call is for a time of its own.
  const [heard, setHeard] = useState(() => device.get(HEARD) ?? '');
  const ids = due.map(({ basket }) => `${basket.tray}@${basket.doneAt ?? ''}`).join(' ');
  const isHeard = ids === heard;
  useTitle(called && !isHeard ? '●' : null, true);
  if (baskets.length === 0) return null;
  const calling = due.length > 0 && !isHeard;
  return (
    <aside
      aria-label="In the baths"
      className={`flex flex-wrap items-center gap-x-5 px-4
        ${calling ? 'bg-dawn-soft border-b-[3px] border-[var(--dawn)]' : 'border-line border-b'} print:hidden`}
    >
      {calling && <BellRing aria-hidden size={22} className="text-dawn" />}
      {/* Said once, not with every second that is counted down. */}
      <p role="alert" className="sr-only">
        {isHeard ? '' : called}
      </p>
      {calling && (
        <Button
          onClick={() => {
            device.set(HEARD, ids);
            setHeard(ids);
          }}
        >
          Heard
        </Button>
      )}
      {baskets.map(({ basket, bath }) => (
        <Link key={basket.tray} to="/baths" className="inline-flex min-h-11 items-center gap-2">
          <span className="font-bold">Tray {basket.tray}</span>
          <span className="text-mute max-sm:hidden">{bath.toLowerCase()}</span>
          <BasketTime basket={basket} now={now} />
        </Link>
      ))}
    </aside>
  );
}
