import { Pressable } from '../ui/pressable';

interface Props {
  label: string;
  /** The hole in words, such as "2nd left of the pivot". */
  value: string;
  onChange: (hole: string) => void;
}

const COUNT = ['1st', '2nd', '3rd'];
const STEP = 48;
const PIVOT = 3 * STEP + 30;

/** The words for a hole that is pressed on the drawing. */
const holeWords = (place: number, side: 'left' | 'right'): string => `${COUNT[place - 1] ?? ''} ${side} of the pivot`;

/** Which hole, pressed on a lever with three either side of its pivot. */
export function HoleChoice({ label, value, onChange }: Props) {
  const holes = (['left', 'right'] as const).flatMap((side) =>
    COUNT.map((_, i) => ({ words: holeWords(i + 1, side), x: PIVOT + (side === 'left' ? -1 : 1) * STEP * (i + 1) })),
  );
  return (
    <svg
      viewBox={`0 0 ${2 * PIVOT} 60`}
      className="w-full max-w-88"
      role="group"
      aria-label={label}
      fill="none"
      strokeWidth={2.2}
    >
      <path
        d={`M${PIVOT} 8h${PIVOT - 30}q22 0 22 22t-22 22H30q-22 0-22-22t22-22z`}
        fill="var(--cast)"
        stroke="var(--cast-line)"
      />
      <circle cx={PIVOT} cy={30} r={11} fill="var(--steel-2)" stroke="var(--ink)" />
      <path d={`M${PIVOT - 5} 30h10m-5-5v10`} stroke="var(--ink)" />
      {holes.map(({ words, x }) => (
        <Pressable key={words} label={words} pressed={value.trim() === words} onPress={() => onChange(words)}>
          <rect x={x - STEP / 2} y={6} width={STEP} height={48} fill="transparent" />
          <circle
            cx={x}
            cy={30}
            r={9}
            fill={value.trim() === words ? 'var(--dawn)' : 'var(--sheet)'}
            stroke="var(--ink)"
          />
        </Pressable>
      ))}
    </svg>
  );
}
