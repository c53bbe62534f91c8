import { Card } from '../../ui/card';
import type { LedgerView } from '../../api/client';

/** Kit parts that were not used, and why. */
export function LeftOver({ view }: { view: LedgerView }) {
  const left = view.reconciliation.leftOver;
  if (left.length === 0) return null;
  return (
    <Card label="Left of the kit" className="block">
      <h2 className="pb-1 text-part">Left of the kit</h2>
      <ul>
        {left.map((one) => (
          <li
            key={one.item + one.part}
            className="border-line flex items-baseline gap-x-3 border-t py-1.5 leading-snug max-sm:flex-col"
          >
            <span className="min-w-48 font-strong">
              {one.quantity} {one.part}
            </span>
            <span className={`min-w-0 flex-1 ${one.settled ? 'text-mute' : 'text-unsure font-strong'}`}>{one.why}</span>
            <span className="num text-mute">{one.item}</span>
          </li>
        ))}
      </ul>
    </Card>
  );
}
