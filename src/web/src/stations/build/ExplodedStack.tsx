import type { LedgerLine, LedgerView, StackPlan } from '../../api/client';
import { type Paint, PartShape } from '../../parts/PartShape';
import { Pressable } from '../../ui/pressable';

interface Props {
  stack: StackPlan;
  view: LedgerView;
  /** The part about to go in. */
  next: string | null;
  onPick: (part: string) => void;
}

const STEP = 104;
const AXIS = 158;
const TEXT = 322;

const paints: Record<Paint, { fill: string; stroke: string; metal: string; dash?: string; width: number }> = {
  in: { fill: 'var(--cast)', stroke: 'var(--ink)', metal: 'var(--brass)', width: 2.2 },
  next: { fill: 'var(--dawn-soft)', stroke: 'var(--dawn)', metal: 'var(--brass)', width: 3.4 },
  open: { fill: 'var(--sheet)', stroke: 'var(--line-strong)', metal: 'var(--sheet)', dash: '6 5', width: 2 },
  wrong: { fill: 'var(--bad-soft)', stroke: 'var(--bad)', metal: 'var(--bad-soft)', width: 3.4 },
};

/** A stack pulled apart along its axis, from the base up, each part the way round it goes. */
export function ExplodedStack({ stack, view, next, onPick }: Props) {
  const layers = stack.layers.flatMap((layer) => {
    const line = view.lines.find((one) => one.part.key === layer.part);
    return line ? [{ layer, line }] : [];
  });
  const height = (layers.length + 1) * STEP + 18;
  const y = (place: number): number => height - 46 - place * STEP;
  return (
    <svg
      viewBox={`0 0 640 ${height}`}
      className="w-full"
      role="group"
      aria-label={`${stack.label}, from the ${stack.base} up: ${layers.map(({ line }) => line.part.label).join(', ')}`}
    >
      <line x1={AXIS} x2={AXIS} y1={20} y2={y(0)} stroke="var(--tick)" strokeWidth={1.6} strokeDasharray="12 5 3 5" />
      <g transform={`translate(${AXIS} ${y(0)})`}>
        <path d="M-140 -8h280v40h-280z" fill="var(--steel-2)" stroke="var(--cast-line)" strokeWidth={2} />
        <path
          d="M-140 32l12 -12M-100 32l40 -40M-60 32l40 -40M-20 32l40 -40M20 32l40 -40M60 32l40 -40M100 32l40 -40"
          stroke="var(--cast-line)"
          opacity={0.55}
        />
      </g>
      <text x={TEXT} y={y(0) + 18} fontSize={19} fill="var(--mute)">
        {stack.base}
      </text>
      {layers.map(({ layer, line }, i) => (
        <Layer
          key={layer.part}
          place={i + 1}
          y={y(i + 1)}
          line={line}
          way={layer.way === '=' ? (line.found?.way ?? null) : layer.way}
          paint={paintOf(view, line, next)}
          onPick={() => onPick(line.part.key)}
        />
      ))}
    </svg>
  );
}

const paintOf = (view: LedgerView, line: LedgerLine, next: string | null): Paint =>
  view.problems.some((problem) => problem.part === line.part.key)
    ? 'wrong'
    : line.part.key === next
      ? 'next'
      : line.state === 'out' || line.state === 'missing'
        ? 'open'
        : 'in';

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

interface LayerProps {
  place: number;
  y: number;
  line: LedgerLine;
  /** The right way round. */
  way: string | null;
  paint: Paint;
  onPick: () => void;
}

function Layer({ place, y, line, way, paint, onPick }: LayerProps) {
  const look = paints[paint];
  const fitted = line.fitted?.way ?? null;
  // What is in is drawn as it went in; what is still to come as it has to.
  const shown = line.state === 'back' && fitted ? fitted : way;
  const word = line.part.ways.find((one) => one.key === shown)?.label;
  const left = line.fitted?.fate === 'leftOff' || line.fitted?.fate === 'scrapped';
  return (
    <Pressable
      label={`${place}: ${line.part.label}${word ? `, ${word}` : ''}`}
      onPress={onPick}
      opacity={left ? 0.35 : 1}
    >
      <g
        transform={`translate(${AXIS} ${y})`}
        fill={look.fill}
        stroke={look.stroke}
        strokeWidth={look.width}
        strokeLinejoin="round"
        strokeDasharray={look.dash}
        className="[&_.hole]:fill-[var(--sheet)] [&_.metal]:fill-[var(--metal)] [&_.thick]:[stroke-width:6] [&_.thin]:[stroke-width:1.4] [&_.wire]:fill-none"
        style={{ '--metal': look.metal } as React.CSSProperties}
      >
        <PartShape part={line.part.key} way={shown} />
      </g>
      <path d={`M${AXIS + 116} ${y}H${TEXT - 36}`} stroke="var(--line-strong)" strokeWidth={1.4} />
      <circle
        cx={TEXT - 18}
        cy={y}
        r={16}
        fill={
          paint === 'next'
            ? 'var(--dawn)'
            : paint === 'wrong'
              ? 'var(--bad)'
              : paint === 'in'
                ? 'var(--ink)'
                : 'var(--sheet)'
        }
        stroke={paint === 'open' ? 'var(--line-strong)' : 'none'}
        strokeWidth={2}
      />
      <text
        x={TEXT - 18}
        y={y + 6.5}
        textAnchor="middle"
        fontSize={19}
        fontWeight={700}
        fill={paint === 'open' ? 'var(--ink)' : paint === 'next' ? 'var(--dawn-ink)' : 'var(--sheet)'}
      >
        {place}
      </text>
      <text x={TEXT + 8} y={y + (word ? -4 : 7)} fontSize={22} fontWeight={700} fill="var(--ink)">
        {capital(line.part.label)}
      </text>
      {word && (
        <text
          x={TEXT + 8}
          y={y + 21}
          fontSize={19}
          fontWeight={600}
          fill={paint === 'wrong' ? 'var(--bad)' : 'var(--ink)'}
        >
          {word}
        </text>
      )}
      {paint === 'next' && (
        <path
          d={`M${AXIS - 132} ${y - 26}v40m-9 -11l9 12l9 -12`}
          fill="none"
          stroke="var(--dawn)"
          strokeWidth={4.5}
          strokeLinecap="round"
          strokeLinejoin="round"
        />
      )}
      {line.state === 'back' && paint === 'in' && !left && (
        <path
          d={`M${AXIS - 140} ${y}l7 8l13 -17`}
          fill="none"
          stroke="var(--ok)"
          strokeWidth={4.5}
          strokeLinecap="round"
          strokeLinejoin="round"
        />
      )}
    </Pressable>
  );
}
