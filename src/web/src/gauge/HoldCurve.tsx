import type { Judgement, Reading, Span } from '../api/client';
import { useUnits } from '../session/session';
import { figure } from '../units/format';

const W = 300;
const H = 84;
const LEFT = 6;
const BOTTOM = 60;

/** Pressure in time against the lowest that still counts as held. */
export function HoldCurve({
  reading,
  window,
  judgement,
}: {
  reading: Reading | null;
  window: Span;
  judgement: Judgement;
}) {
  const units = useUnits();
  const samples = reading?.kind === 'hold' ? [...reading.samples].sort((a, b) => a.timeS - b.timeS) : [];
  const limit = window.low ?? 0;
  const lastS = Math.max(12, ...samples.map((s) => s.timeS));
  const lowKPa = Math.min(limit * 0.8, ...samples.map((s) => s.pressureKPa)) * 0.96;
  const highKPa = Math.max(limit * 1.12, ...samples.map((s) => s.pressureKPa));
  const x = (s: number): number => LEFT + (s / lastS) * (W - 2 * LEFT);
  const y = (kPa: number): number => 6 + ((highKPa - kPa) / (highKPa - lowKPa)) * (BOTTOM - 10);
  const colour =
    judgement.verdict === 'good' ? 'var(--ok)' : judgement.verdict === 'notGood' ? 'var(--bad)' : 'var(--unsure)';
  return (
    <svg
      viewBox={`0 0 ${W} ${H}`}
      className="w-full max-w-92"
      role="img"
      aria-label={`Pressure in time: ${judgement.word}`}
    >
      <rect x={LEFT} y={4} width={W - 2 * LEFT} height={Math.max(2, y(limit) - 4)} fill="var(--ok-soft)" />
      <line x1={LEFT} x2={W - LEFT} y1={y(limit)} y2={y(limit)} stroke="var(--ok)" strokeWidth={1.4} />
      <line x1={LEFT} x2={W - LEFT} y1={BOTTOM} y2={BOTTOM} stroke="var(--tick)" strokeWidth={1.2} />
      {Array.from({ length: Math.floor(lastS) + 1 }, (_, s) => (
        <line
          key={s}
          x1={x(s)}
          x2={x(s)}
          y1={BOTTOM}
          y2={BOTTOM + (s % 10 === 0 ? 7 : s % 5 === 0 ? 5 : 3)}
          stroke="var(--tick)"
        />
      ))}
      <text x={W - LEFT} y={H - 1} textAnchor="end" fontSize={16} className="num" fill="var(--ink)">
        {figure('time', lastS, units)} s
      </text>
      <text x={LEFT} y={H - 1} fontSize={16} className="num" fill="var(--ink)">
        ≥ {figure('pressure', limit, units)}
      </text>
      {samples.length > 1 && (
        <polyline
          points={samples.map((s) => `${x(s.timeS)},${y(s.pressureKPa)}`).join(' ')}
          fill="none"
          stroke={colour}
          strokeWidth={2.2}
        />
      )}
      {samples.map((s) => (
        <circle key={s.timeS} cx={x(s.timeS)} cy={y(s.pressureKPa)} r={3.4} fill={colour} />
      ))}
    </svg>
  );
}
