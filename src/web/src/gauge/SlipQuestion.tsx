import { useUnits } from '../session/session';
import { Button } from '../ui/button';
import { Notice } from '../ui/states';
import { quantity, say } from '../units/format';
import type { LineState } from './useLine';

/** A number far from the sheet: what was likely meant is a touch away, and so is that it is really so. */
export function SlipQuestion({ state }: { state: LineState }) {
  const units = useUnits();
  return (
    <div className="py-1" role="group" aria-label="Far from the sheet">
      {state.slips.map((slip) => (
        <Notice key={slip.field} tone="unsure" title={say(slip.question, units)}>
          <span className="flex flex-wrap gap-2 pt-1">
            {slip.likely !== null && (
              <Button look="hands" onClick={() => state.mean(slip)}>
                {slip.means ? quantity(slip.means, units) : slip.likely}
              </Button>
            )}
            <Button disabled={state.busy} onClick={() => void state.insist()}>
              Really so
            </Button>
          </span>
        </Notice>
      ))}
    </div>
  );
}
