import { useUnits } from '../session/session';
import { Button } from '../ui/button';
import { Notice } from '../ui/states';
import { quantity, say } from '../units/format';
import type { LineState } from './useLine';

/** Numbers far from the sheet: what was likely meant is a touch away, and so is that they are really so. */
export function SlipQuestion({ state, onDone }: { state: LineState; onDone: () => void }) {
  const units = useUnits();
  return (
    <div className="py-1" role="group" aria-label="Far from the sheet" data-slips>
      <Notice tone="unsure" title="Far from what it should be. Is it really so?">
        <div className="grid gap-2 pt-1">
          {state.slips.map((slip) => (
            <div key={slip.field} className="flex flex-wrap items-center gap-x-3 gap-y-1">
              <span className="font-strong">{say(slip.question, units)}</span>
              {slip.likely !== null && (
                <Button look="hands" onClick={() => state.mean(slip)}>
                  {slip.means ? quantity(slip.means, units) : slip.likely}
                </Button>
              )}
            </div>
          ))}
          <Button className="justify-self-start" disabled={state.busy} onClick={() => void state.insist().then(onDone)}>
            Really so
          </Button>
        </div>
      </Notice>
    </div>
  );
}
