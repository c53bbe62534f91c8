import type { Judgement, Span } from '../api/client';
import { useUnits } from '../session/session';
import { figure } from '../units/format';

const W = 140;
const H = 56;
const PAD = 7;
/** Width of a digit at the size the ends are written in, and the least room between the two. */
const DIGIT = 10.5;
const GAP = 8;

interface Frame {
  low: number;
  high: number;
}

/** What the scale shows: the window in the middle, and as much around it as the reading needs, within reason. */
function frame(window: Span, found: Span | null): Frame {
  const low = window.low ?? window.high ?? 0;
  const high = window.high ?? window.low ?? 0;
  const width = high > low ? high - low : Math.max(Math.abs(low) * 0.12, 1e-6);
  const reach = (edge: number | null | undefined, fallback: number): number =>
    edge === null || edge === undefined ? fallback : Math.min(Math.max(edge, low - 6 * width), high + 6 * width);
  const lowest = Math.min(low - 1.6 * width, reach(found?.low, low) - 0.3 * width);
  return {
    low: low >= 0 ? Math.max(0, lowest) : lowest,
    high: Math.max(high + 1.6 * width, reach(found?.high ?? found?.low, high) + 0.3 * width),
  };
}

const tone: Record<Judgement['verdict'], string> = {
  good: 'var(--ok)',
  notGood: 'var(--bad)',
  cannotTell: 'var(--unsure)',
  notRead: 'var(--mute)',
};

/** A window drawn on a steel rule, with what the reading has proven lying on it. */
export function Scale({ window, judgement, label }: { window: Span; judgement: Judgement; label: string }) {
  const units = useUnits();
  const { low, high } = frame(window, judgement.found);
  const x = (value: number): number =>
    PAD + ((Math.min(Math.max(value, low), high) - low) / (high - low)) * (W - 2 * PAD);
  const from = x(window.low ?? low);
  const to = x(window.high ?? high);
  const text = (value: number): string => figure(window.dimension, value, units);
  // Both ends stay on the drawing, whatever their length in the reader's units.
  const [lowText, highText] = [text(window.low ?? 0), text(window.high ?? 0)];
  const [lowWide, highWide] = [lowText.length * DIGIT, highText.length * DIGIT];
  const lowEnd = Math.max(lowWide, Math.min(from + 4, (from + to) / 2 - 2, W - highWide - GAP));
  const highStart = Math.min(W - highWide, Math.max(to - 4, (from + to) / 2 + 2, lowWide + GAP));
  return (
    <svg viewBox={`0 0 ${W} ${H}`} className="w-full max-w-44" role="img" aria-label={`${label}: ${judgement.word}`}>
      <rect
        x={from}
        y={5}
        width={Math.max(2, to - from)}
        height={22}
        fill="var(--ok-soft)"
        stroke="var(--ok)"
        strokeWidth={1.2}
        rx={1.5}
      />
      <line x1={PAD} x2={W - PAD} y1={27} y2={27} stroke="var(--tick)" strokeWidth={1.2} />
      {Array.from({ length: 21 }, (_, i) => (
        <line
          key={i}
          x1={PAD + (i * (W - 2 * PAD)) / 20}
          x2={PAD + (i * (W - 2 * PAD)) / 20}
          y1={27}
          y2={i % 10 === 0 ? 35 : i % 5 === 0 ? 33 : 30.5}
          stroke="var(--tick)"
        />
      ))}
      {window.low !== null && (
        <text
          x={window.high === null ? from : lowEnd}
          y={52}
          textAnchor={window.high === null ? 'middle' : 'end'}
          className="num"
          fontSize={16}
          fill="var(--ink)"
        >
          {lowText}
        </text>
      )}
      {window.high !== null && (
        <text
          x={window.low === null ? to : highStart}
          y={52}
          textAnchor={window.low === null ? 'middle' : 'start'}
          className="num"
          fontSize={16}
          fill="var(--ink)"
        >
          {highText}
        </text>
      )}
      {judgement.found && <Found found={judgement.found} x={x} frame={{ low, high }} verdict={judgement.verdict} />}
    </svg>
  );
}

function Found({
  found,
  x,
  frame,
  verdict,
}: {
  found: Span;
  x: (v: number) => number;
  frame: Frame;
  verdict: Judgement['verdict'];
}) {
  const colour = tone[verdict];
  const a = found.low ?? null;
  const b = found.high ?? null;
  if (a !== null && b !== null && a === b && a >= frame.low && a <= frame.high) {
    return <path d={`M${x(a)} 26 l-6.5 -14 h13z`} fill={colour} />;
  }
  const left = a === null ? PAD - 6 : x(a);
  const right = b === null ? W - PAD + 6 : x(b);
  const beyond = a !== null && a > frame.high ? 'right' : b !== null && b < frame.low ? 'left' : null;
  if (beyond) {
    return <path d={beyond === 'right' ? `M${W - 4} 16 l-10 -7 v14z` : `M4 16 l10 -7 v14z`} fill={colour} />;
  }
  const open = verdict === 'cannotTell';
  return (
    <rect
      x={left}
      y={11}
      width={Math.max(5, right - left)}
      height={10}
      rx={5}
      fill={colour}
      fillOpacity={open ? 0.22 : 1}
      stroke={colour}
      strokeWidth={open ? 1.6 : 0}
      strokeDasharray={open ? '4 3' : undefined}
    />
  );
}
