import type { PassageStanding, Tray } from '../../api/client';
import { Cutaway } from '../../tray/Cutaway';
import { DiaphragmCutaway, TankCutaway } from '../../tray/CutawayOther';
import { Pressable } from '../../ui/pressable';

type Point = readonly [x: number, y: number];

/** Where each passage runs in the cutaway of its family. */
const runs: Record<string, Record<string, readonly Point[]>> = {
  floatBowl: {
    inlet: [
      [28, 126],
      [104, 126],
      [104, 140],
    ],
    'main-well': [
      [170, 222],
      [170, 76],
    ],
    'tube-air': [
      [60, 106],
      [150, 106],
      [164, 132],
    ],
    'idle-feed': [
      [218, 200],
      [218, 108],
    ],
    'idle-ports': [
      [226, 107],
      [272, 107],
      [272, 92],
    ],
    'bowl-vent': [
      [30, 108],
      [120, 116],
      [130, 138],
    ],
  },
  diaphragm: {
    pulse: [
      [316, 78],
      [246, 78],
      [246, 44],
    ],
    'pump-in': [
      [26, 30],
      [104, 40],
      [104, 58],
    ],
    'needle-feed': [
      [105, 70],
      [105, 200],
    ],
    'low-ports': [
      [232, 204],
      [232, 168],
      [270, 168],
      [270, 146],
    ],
    'main-nozzle': [
      [170, 204],
      [170, 130],
    ],
    vent: [
      [170, 268],
      [170, 252],
    ],
  },
  suctionTank: {
    pickup: [
      [158, 250],
      [158, 118],
    ],
    mixture: [
      [172, 118],
      [172, 110],
      [262, 110],
      [262, 92],
    ],
    'choke-vacuum': [
      [80, 96],
      [80, 134],
    ],
    'tank-vent': [
      [297, 134],
      [297, 176],
    ],
  },
};

interface Props {
  tray: Tray;
  passages: PassageStanding[];
  picked: string | null;
  onPick: (passage: string) => void;
}

/** The carburetor cut open with its passages: solid where air has come out, dashed where it has not. */
export function PassageMap({ tray, passages, picked, onPick }: Props) {
  const marks = passages.map((standing, i) => {
    const run = runs[tray.facts.family]?.[standing.passage.key];
    if (!run) return null;
    const done = standing.cleaned && standing.airSeen;
    const colour = done ? 'var(--ok)' : standing.passage.key === picked ? 'var(--dawn)' : 'var(--unsure)';
    const from = run[0] ?? [0, 0];
    const to = run.at(-1) ?? from;
    return (
      <Pressable
        key={standing.passage.key}
        label={`${i + 1}: ${standing.passage.label}`}
        pressed={standing.passage.key === picked}
        onPress={() => onPick(standing.passage.key)}
      >
        <polyline
          points={run.map((point) => point.join(',')).join(' ')}
          fill="none"
          stroke={colour}
          strokeWidth={4.5}
          strokeLinejoin="round"
          strokeLinecap="round"
          {...(done ? {} : { strokeDasharray: '1 8' })}
        />
        {standing.airSeen && <circle cx={to[0]} cy={to[1]} r={5.5} fill={colour} />}
        <circle cx={from[0]} cy={from[1]} r={11} fill={colour} />
        <text x={from[0]} y={from[1] + 5} textAnchor="middle" fontSize={14} fontWeight={700} fill="var(--sheet)">
          {i + 1}
        </text>
      </Pressable>
    );
  });
  if (tray.facts.family === 'diaphragm') return <DiaphragmCutaway tray={tray}>{marks}</DiaphragmCutaway>;
  if (tray.facts.family === 'suctionTank') return <TankCutaway tray={tray}>{marks}</TankCutaway>;
  return (
    <Cutaway tray={tray} suspects={[]} plain>
      {marks}
    </Cutaway>
  );
}
