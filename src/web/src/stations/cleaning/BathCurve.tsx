import type { BathView } from '../../api/client';
import { useUnits } from '../../session/session';
import { temperature } from '../../units/format';

const W = 560;
const H = 120;
const BEFORE_MIN = 60;
const AFTER_MIN = 40;
const TOP_C = 108;
const FLOOR_C = 10;

/** The bath's temperature: what was read, and where it is heading, with the window it has to be in. */
export function BathCurve({ view, now }: { view: BathView; now: number }) {
  const units = useUnits();
  const { state, recipe, readings } = view;
  const last = readings.at(-1);
  if (!last || recipe.lowC === null || recipe.highC === null) return null;
  const x = (ms: number): number => ((ms - now) / 60_000 + BEFORE_MIN) * (W / (BEFORE_MIN + AFTER_MIN));
  const y = (celsius: number): number => H - ((celsius - FLOOR_C) / (TOP_C - FLOOR_C)) * H;
  const ahead = view.ahead.map((one) => `${x(Date.parse(one.at)).toFixed(1)},${y(one.temperatureC).toFixed(1)}`);
  const carried = view.ahead[0];
  if (carried) ahead.unshift(`${x(Date.parse(last.at)).toFixed(1)},${y(last.temperatureC).toFixed(1)}`);
  return (
    <svg
      viewBox={`0 0 ${W} ${H}`}
      className="border-line w-full overflow-hidden rounded border"
      role="img"
      aria-label={`Temperature over the last hour, now ${state.temperatureC === null ? 'not known' : temperature(state.temperatureC, units)}`}
    >
      <rect x={0} y={y(recipe.highC)} width={W} height={y(recipe.lowC) - y(recipe.highC)} fill="var(--ok-soft)" />
      <line x1={x(now)} x2={x(now)} y1={0} y2={H} stroke="var(--line-strong)" strokeDasharray="4 4" />
      <polyline
        points={readings
          .map((one) => `${x(Date.parse(one.at)).toFixed(1)},${y(one.temperatureC).toFixed(1)}`)
          .join(' ')}
        fill="none"
        stroke="var(--ink)"
        strokeWidth={2.5}
      />
      <polyline points={ahead.join(' ')} fill="none" stroke="var(--ink)" strokeWidth={2} strokeDasharray="6 5" />
      {readings.map((one) => (
        <circle key={one.at} cx={x(Date.parse(one.at))} cy={y(one.temperatureC)} r={4} fill="var(--ink)" />
      ))}
      <text x={6} y={y(recipe.highC) - 5} fontSize={14} fill="var(--ok)">
        {temperature(recipe.highC, units)}
      </text>
      <text x={6} y={y(recipe.lowC) + 15} fontSize={14} fill="var(--ok)">
        {temperature(recipe.lowC, units)}
      </text>
      <text x={x(now) + 5} y={H - 6} fontSize={14} fill="var(--mute)">
        now
      </text>
    </svg>
  );
}
