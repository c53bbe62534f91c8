import type { CarburetorFamily, Line } from '../api/client';
import { useLine } from '../gauge/useLine';
import { Pressable } from '../ui/pressable';

type Point = readonly [x: number, y: number];

/** Where fuel comes out in the cutaway of each family, by what it is called on the fuel-on line. */
const places: Record<CarburetorFamily, Record<string, readonly Point[]>> = {
  floatBowl: {
    bowlJoint: [
      [84, 120],
      [256, 120],
    ],
    overflow: [[20, 88]],
    inletFitting: [[32, 128]],
    plunger: [[170, 252]],
  },
  diaphragm: {
    throat: [[310, 126]],
    cover: [
      [280, 52],
      [280, 244],
    ],
    inletFitting: [[32, 30]],
  },
  suctionTank: {
    throat: [[310, 70]],
    tankTop: [
      [30, 148],
      [310, 148],
    ],
  },
};

interface Props {
  tray: number;
  family: CarburetorFamily;
  line: Line;
}

/** Where it leaks, tapped on the drawing: the same as choosing it on the line. */
export function LeakMarks({ tray, family, line }: Props) {
  const state = useLine(tray, line);
  const group = line.form.groups[0];
  const choices = group?.fields.find((field) => field.name === 'leak')?.choices ?? [];
  const chosen = state.draft.values.leak ?? line.standing?.typed.values.leak;
  return choices.flatMap((choice) =>
    (places[family][choice.value] ?? []).map(([x, y], i) => (
      <Pressable
        key={`${choice.value} ${i}`}
        label={i === 0 ? choice.label : `${choice.label}, other side`}
        pressed={chosen === choice.value}
        onPress={() =>
          state.change({ group: group?.name ?? null, values: { ...state.draft.values, leak: choice.value } })
        }
      >
        <circle cx={x} cy={y} r={24} fill="transparent" />
        <circle
          cx={x}
          cy={y}
          r={11}
          fill={chosen === choice.value ? 'var(--bad)' : 'var(--sheet)'}
          fillOpacity={chosen === choice.value ? 1 : 0.85}
          stroke={chosen === choice.value ? 'var(--bad)' : 'var(--ink)'}
          strokeWidth={1.8}
        />
        <path
          d={`M${x} ${y - 6}q-5.5 8 0 11q5.5-3 0-11`}
          fill={chosen === choice.value ? 'var(--sheet)' : 'var(--fuel-line)'}
        />
      </Pressable>
    )),
  );
}
