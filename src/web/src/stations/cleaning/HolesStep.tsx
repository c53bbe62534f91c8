import type { CleaningView } from '../../api/client';
import { useUnits } from '../../session/session';
import { plusMinus, sign } from '../../units/format';

/** Which tool clears which hole: the largest that does not touch, and the next one up that would spoil it. */
export function HolesStep({ view }: { view: CleaningView }) {
  const units = useUnits();
  if (view.holes.length === 0) return <p>The spec sheet gives no bores. Blow only; put nothing into a hole.</p>;
  return (
    <>
      <p>
        The largest that goes in without touching the wall. Turn and draw, never push; what is named below it would
        spoil the hole.
      </p>
      <div className="grid gap-2">
        {view.holes.map((hole) => (
          <div
            key={hole.label}
            role="group"
            aria-label={hole.label}
            className="border-line grid items-start gap-x-4 gap-y-1 border-t pt-2 sm:grid-cols-[11rem_repeat(3,minmax(0,1fr))]"
          >
            <p className="leading-tight">
              <span className="block text-lead font-bold">{hole.label}</span>
              <span className="num text-mute">
                {plusMinus('length', hole.boreMm, hole.toleranceMm, units)} {sign('length', units)}
              </span>
            </p>
            {hole.choices.map((choice) => (
              <p key={choice.kind} className="leading-tight">
                <span className="text-mute block text-note">{choice.label}</span>
                <span className="block text-part font-bold">
                  {choice.largest ? choice.largest.label : 'none goes in'}
                </span>
                {choice.spoils && (
                  <span className="text-bad block font-medium">
                    {choice.spoils.label} {choice.touching}
                  </span>
                )}
              </p>
            ))}
          </div>
        ))}
      </div>
    </>
  );
}
