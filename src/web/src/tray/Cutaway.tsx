import type { ReactNode } from 'react';
import type { Line, Tray } from '../api/client';
import { useUnits } from '../session/session';
import { figure, sign } from '../units/format';
import { DrawnPart } from './DrawnPart';
import { lineOf, outline, summaryOf, tones } from './drawn';

const figureOf = (line: Line | undefined, key: string): number | null =>
  line?.judgement.figures.find((f) => f.key === key)?.quantity.value ?? null;

/** A few hundredths would not be seen at arm's length: the difference from the spec is drawn three times as large. */
const EXAGGERATION = 3;
const FLOAT_PX_PER_MM = 9;
const LEVEL = 176;
const FACE = 118;

type Standing = NonNullable<Tray['float']>;

/** Where things stand in the bowl when the float is drawn to scale: the level the sheet means keeps its place. */
export const bowlScale = (float: Standing) => {
  const pxPerMm = (LEVEL - FACE) / float.meantMm;
  const y = (mm: number): number => FACE + mm * pxPerMm;
  return { pxPerMm, level: float.levelMm === null ? FACE + 3 : y(float.levelMm), top: y(float.topMm) };
};

/**
 * This carburetor cut open, drawn from the tray's readings: each bore beside its spec, the fuel where the float puts
 * it, parts dashed until they have been judged.
 */
export function Cutaway({
  tray,
  onPick,
  suspects,
  plain = false,
  near = false,
  children,
}: {
  tray: Tray;
  /** Leads to a line; without it nothing in the drawing is pressed. */
  onPick?: ((line: Line) => void) | undefined;
  suspects: Suspect[];
  /** Without the bores beside it. */
  plain?: boolean;
  /** The bowl alone, twice as large: float, needle and fuel are what it is about. */
  near?: boolean;
  /** Drawn over it, in its own measure: 340 by 282. */
  children?: ReactNode;
}) {
  const line = (key: string): Line | undefined => lineOf(tray, key);
  const main = line('gauging/main-jet');
  const idle = line('gauging/idle-jet');
  const rows = tray.lines.filter((l) => l.key.startsWith('gauging/emulsion-row-'));
  const height = line('setting/float-height');
  const mass = line('setting/float-mass');
  const hold = line('setting/hold-test');
  const fuelOn = line('proving/fuel-on');

  // Measured upside down, a float too far from the body hangs low when turned upright: the bowl fills low by as much.
  const error = figureOf(height, 'heightError') ?? 0;
  const { float } = tray;
  const scale = float && bowlScale(float);
  const shift = scale ? 0 : Math.max(-34, Math.min(34, error * FLOAT_PX_PER_MM));
  const level = scale ? scale.level : LEVEL + shift;
  const leaks = hold?.judgement.verdict === 'notGood' || fuelOn?.judgement.verdict === 'notGood';
  const heavy = !scale && mass?.judgement.verdict === 'notGood' ? 7 : 0;
  const gap = scale ? float.needleGapMm * scale.pxPerMm : 0;
  const box = scale ? { y: scale.top, height: float.tallMm * scale.pxPerMm } : { y: 156, height: 42 };

  return (
    <svg
      viewBox={near ? '76 108 188 160' : '0 0 340 282'}
      className="w-full"
      role="group"
      aria-label={summary(tray, suspects)}
    >
      <defs>
        <pattern id="cast" width={7} height={7} patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width={7} height={7} fill="var(--cast)" />
          <line x1={0} x2={0} y1={0} y2={7} stroke="var(--cast-line)" strokeWidth={1.3} opacity={0.55} />
        </pattern>
        <clipPath id="bowl">
          <path d="M89 128V226Q89 240 103 240H237Q251 240 251 226V128Z" />
        </clipPath>
      </defs>

      {/* Throat, with choke plate (left) and throttle plate (right); air goes left to right. */}
      <path d="M14 10H326V26C270 26 222 32 170 48C118 32 70 26 14 26Z" fill="url(#cast)" stroke="var(--cast-line)" />
      <path d="M14 118H162V88C118 96 70 100 14 100Z" fill="url(#cast)" stroke="var(--cast-line)" />
      <path d="M326 118H178V88C222 96 270 100 326 100Z" fill="url(#cast)" stroke="var(--cast-line)" />
      <path d="M46 28L39 98" stroke="var(--cast-line)" strokeWidth={5} strokeLinecap="round" />
      <path d="M292 97L306 29" stroke="var(--cast-line)" strokeWidth={5} strokeLinecap="round" />
      <path d="M62 62h40m-9-6l9 6l-9 6" fill="none" stroke="var(--tick)" strokeWidth={1.8} />

      {/* Bowl with its fuel. */}
      <g clipPath="url(#bowl)">
        <rect x={86} y={level} width={168} height={120} fill="var(--fuel)" />
      </g>
      <path d={`M89 ${level}H251`} stroke="var(--fuel-line)" strokeWidth={2} />
      {height?.judgement.verdict !== 'notRead' && height && (
        <path d={`M84 ${LEVEL}H256`} stroke="var(--ok)" strokeWidth={1.5} strokeDasharray="6 4" />
      )}
      <path
        d="M85 118V226Q85 244 103 244H237Q255 244 255 226V118"
        fill="none"
        stroke="var(--cast-line)"
        strokeWidth={7}
      />
      <path d="M158 244h24v9q0 5-5 5h-14q-5 0-5-5z" fill="var(--brass)" stroke="var(--brass-line)" />
      {fuelOn && <path d="M80 121h11M249 121h11" {...outline(fuelOn)} strokeWidth={5} strokeDasharray={undefined} />}

      {/* Pedestal, emulsion tube with its rows of holes, main jet. */}
      <path d="M146 118h12v106h-12zM182 118h12v106h-12z" fill="url(#cast)" stroke="var(--cast-line)" />
      <rect x={158} y={level} width={24} height={Math.max(0, 224 - level)} fill="var(--fuel)" />
      <rect x={162} y={76} width={16} height={130} rx={2} fill="var(--brass)" stroke="var(--brass-line)" />
      <rect x={167} y={72} width={6} height={134} fill="var(--sheet)" opacity={0.85} />
      {rows.map((row, i) => (
        <DrawnPart key={row.key} line={row} onPick={onPick}>
          <circle cx={165} cy={132 + i * (66 / Math.max(1, rows.length))} r={4} fill="var(--sheet)" {...outline(row)} />
          <circle cx={175} cy={132 + i * (66 / Math.max(1, rows.length))} r={4} fill="var(--sheet)" {...outline(row)} />
        </DrawnPart>
      ))}
      {main && (
        <DrawnPart line={main} onPick={onPick}>
          <path d="M158 208h24v17h-24z" fill="var(--brass)" {...outline(main)} />
          <rect x={167} y={208} width={6} height={17} fill="var(--sheet)" />
        </DrawnPart>
      )}

      {/* Idle jet in its passage. */}
      <path d="M218 118V206" stroke="var(--brass-line)" strokeWidth={9} opacity={0.35} />
      <path d="M218 104V107H272V99" stroke="var(--sheet)" strokeWidth={3.5} fill="none" />
      {idle && (
        <DrawnPart line={idle} onPick={onPick}>
          <path d="M211 110h14v20h-14z" fill="var(--brass)" {...outline(idle)} />
          <path d="M218 110v20" stroke="var(--sheet)" strokeWidth={3} />
        </DrawnPart>
      )}

      {/* Inlet, seat, needle, hinge and float. The float hangs where its height puts it. */}
      <path d="M28 126H98" stroke="var(--fuel)" strokeWidth={9} />
      <path d="M28 121H92M28 131H92" stroke="var(--cast-line)" strokeWidth={1.4} />
      {hold && (
        <DrawnPart line={hold} onPick={onPick}>
          <path d="M93 118h22v14h-7v-5h-8v5h-7z" fill="var(--brass)" {...outline(hold)} />
          <path d="M101 128h6v13h-6zM101 128l3-6l3 6z" fill="var(--mute)" transform={`translate(0 ${gap})`} />
        </DrawnPart>
      )}
      {leaks && <path d="M97 140q-4 7 0 9q4-2 0-9M111 152q-4 7 0 9q4-2 0-9" fill="var(--bad)" />}
      <g transform={`translate(0 ${shift})`}>
        <g transform={float ? `rotate(${float.angleDeg} 170 ${box.y})` : `rotate(${heavy} 132 140)`}>
          <FloatHalf line={height} x={97} box={box} onPick={onPick} />
          <FloatHalf line={mass} x={197} box={box} onPick={onPick} />
          <path
            d={`M141 ${box.y + 4}H197M119 ${box.y}V146H103`}
            fill="none"
            stroke="var(--cast-line)"
            strokeWidth={3}
          />
        </g>
      </g>
      <circle cx={132} cy={146} r={4} fill="var(--sheet)" stroke="var(--cast-line)" strokeWidth={2} />

      {suspects.length === 0 && !plain && !near && (
        <>
          <Eye line={idle} x={41} name="Idle jet" onPick={onPick} />
          <Eye line={main} x={299} name="Main jet" onPick={onPick} />
        </>
      )}
      <Suspects suspects={suspects} />
      {children}
      {near && scale && <Millimetres pxPerMm={scale.pxPerMm} />}
      {float && <LevelText float={float} near={near} />}
      {!float && height && height.judgement.verdict !== 'notRead' && (
        <text x={170} y={279} textAnchor="middle" fontSize={13} fill="var(--ink)">
          {height.judgement.lean === 'above'
            ? 'fuel stands low'
            : height.judgement.lean === 'below'
              ? 'fuel stands high'
              : 'fuel at its level'}
        </text>
      )}
    </svg>
  );
}

/** Where the fuel settles and where the sheet means it to, in words. */
function LevelText({ float, near }: { float: Standing; near: boolean }) {
  const units = useUnits();
  // A bench reads a level to a tenth of a millimetre at best.
  const mm = (value: number): string =>
    `${units === 'metric' ? value.toFixed(1) : figure('length', value, units)} ${sign('length', units)}`;
  const text =
    float.levelMm === null
      ? 'the needle cannot shut: it runs over'
      : Math.abs(float.levelMm - float.meantMm) < 0.05
        ? `fuel ${mm(float.levelMm)} below the face, as meant`
        : `fuel ${mm(float.levelMm)} below the face, ${mm(Math.abs(float.levelMm - float.meantMm))} ${float.levelMm > float.meantMm ? 'low' : 'high'}`;
  return (
    <text
      x={170}
      y={near ? 265 : 279}
      textAnchor="middle"
      fontSize={near ? 8.5 : 14}
      fill={float.levelMm === null ? 'var(--bad)' : 'var(--ink)'}
    >
      {text}
    </text>
  );
}

/** A rule down the bowl's wall from the body's face: a tick a millimetre, a longer one every five. */
function Millimetres({ pxPerMm }: { pxPerMm: number }) {
  const ticks = Array.from({ length: Math.floor(118 / pxPerMm) }, (_, i) => i + 1);
  return (
    <g stroke="var(--mute)" strokeWidth={0.6} aria-hidden>
      {ticks.map((mm) => (
        <path key={mm} d={`M251.5 ${FACE + mm * pxPerMm}h${mm % 5 === 0 ? -7 : -3.5}`} />
      ))}
    </g>
  );
}

/** One half of the float: the left one shows its height, the right one its mass. */
function FloatHalf({
  line,
  x,
  box,
  onPick,
}: {
  line: Line | undefined;
  x: number;
  box: { y: number; height: number };
  onPick: ((line: Line) => void) | undefined;
}) {
  const half = <rect x={x} y={box.y} width={45} height={box.height} rx={8} fill="var(--sheet)" {...outline(line)} />;
  return line ? (
    <DrawnPart line={line} onPick={onPick}>
      {half}
    </DrawnPart>
  ) : (
    half
  );
}

/** A likely cause, to be marked where it sits. */
export interface Suspect {
  id: string;
  circuit: string;
  label: string;
  probability: number;
}

/** Where a cause sits in the drawing: by its own name where it has a place of its own, else by its circuit. */
const places: Record<string, readonly [x: number, y: number]> = {
  'main-jet-blocked': [170, 216],
  'main-jet-restricted': [170, 216],
  'main-jet-oversize': [170, 216],
  'emulsion-tube-blocked': [170, 150],
  'idle-jet-blocked': [218, 120],
  'idle-passage-blocked': [262, 108],
  'float-heavy': [220, 178],
  'float-set-low': [119, 178],
  'float-set-high': [119, 178],
  'float-binding': [132, 146],
  'bowl-joint-leaking': [252, 124],
  'flooding-plunger-leaking': [252, 200],
  'intake-joint-leaking': [322, 62],
  'insulator-reversed': [322, 62],
  'air-filter-plugged': [20, 62],
  'fuel-stale': [118, 222],
  supply: [46, 126],
  'inlet-valve': [104, 126],
  main: [170, 200],
  idle: [262, 108],
  air: [322, 62],
  choke: [43, 62],
  governor: [299, 62],
};

const BADGE = { width: 50, height: 24, gap: 4, top: 128, bottom: 262 };

/** The suspects, lit: a ring where each sits, and beside the drawing how likely it is. What has no place is left out. */
function Suspects({ suspects }: { suspects: Suspect[] }) {
  const placed = suspects.flatMap((suspect) => {
    const place = places[suspect.id] ?? places[suspect.circuit];
    return place ? [{ suspect, x: place[0], y: place[1] }] : [];
  });
  // Badges stand at the edge nearer to their ring, from the top down, never over one another.
  const side = (right: boolean) => {
    let free = BADGE.top;
    return placed
      .filter((mark) => mark.x > 170 === right)
      .sort((a, b) => a.y - b.y)
      .map((mark) => {
        const y = Math.min(Math.max(free, mark.y - BADGE.height / 2), BADGE.bottom - BADGE.height);
        free = y + BADGE.height + BADGE.gap;
        return { ...mark, badgeX: right ? 284 : 6, badgeY: y, right };
      });
  };
  return [...side(false), ...side(true)].map(({ suspect, x, y, badgeX, badgeY, right }) => (
    <g key={suspect.id}>
      <title>{`${suspect.label}: ${Math.round(100 * suspect.probability)} %`}</title>
      <path
        d={`M${right ? badgeX : badgeX + BADGE.width} ${badgeY + BADGE.height / 2}L${right ? x + 13 : x - 13} ${y}`}
        stroke="var(--dawn)"
        strokeWidth={1.6}
      />
      <circle cx={x} cy={y} r={14} fill="var(--dawn)" fillOpacity={0.18} stroke="var(--dawn)" strokeWidth={2.6} />
      <g transform={`translate(${badgeX} ${badgeY})`}>
        <rect
          width={BADGE.width}
          height={BADGE.height}
          rx={6}
          fill="var(--sheet)"
          stroke="var(--dawn)"
          strokeWidth={1.6}
        />
        <text
          x={BADGE.width / 2}
          y={17.5}
          textAnchor="middle"
          fontSize={16}
          fontWeight={700}
          className="num"
          fill="var(--ink)"
        >
          {`${Math.round(100 * suspect.probability)} %`}
        </text>
      </g>
    </g>
  ));
}

/** A bore beside its spec: the spec as a ring, what the pins allow as a disc and a band around it. */
function Eye({
  line,
  x,
  name,
  onPick,
}: {
  line: Line | undefined;
  x: number;
  name: string;
  onPick: ((line: Line) => void) | undefined;
}) {
  const units = useUnits();
  if (!line) return null;
  const { low, high } = line.judgement.found ?? { low: null, high: null };
  // Without a limit the ring is what was found itself.
  const nominal = line.window ? ((line.window.low ?? 0) + (line.window.high ?? 0)) / 2 : (low ?? high ?? 1);
  const r = (mm: number): number => Math.max(2, Math.min(31, 22 + 22 * EXAGGERATION * (mm / nominal - 1)));
  const colour = tones[line.judgement.verdict];
  const text = (mm: number): string => figure('length', mm, units);
  const spec = line.window ? `spec ${text(nominal)}` : 'no limit';
  const read =
    low !== null && high !== null
      ? [text(low), `to ${text(high)}`]
      : low !== null
        ? [text(low), 'or more']
        : high !== null
          ? ['below', text(high)]
          : ['', line.judgement.word.toLowerCase()];
  return (
    <DrawnPart line={line} onPick={onPick}>
      <circle cx={x} cy={184} r={32} fill="var(--brass)" stroke="var(--brass-line)" strokeWidth={1.5} />
      {high !== null && <circle cx={x} cy={184} r={r(high)} fill="var(--sheet)" />}
      {high !== null && <circle cx={x} cy={184} r={r(high)} fill={colour} fillOpacity={0.28} />}
      {low !== null && <circle cx={x} cy={184} r={r(low)} fill="var(--sheet)" stroke={colour} strokeWidth={1.6} />}
      <circle cx={x} cy={184} r={22} fill="none" stroke="var(--ink)" strokeWidth={1.8} strokeDasharray="5 3.5" />
      <text x={x} y={148} textAnchor="middle" fontSize={14} fontWeight={600} fill="var(--ink)">
        {name}
      </text>
      {read.map((words, i) => (
        <text
          key={i}
          x={x}
          y={230 + i * 15}
          textAnchor="middle"
          fontSize={words.length > 9 ? 12 : 14}
          fontWeight={650}
          className="num"
          fill={line.judgement.verdict === 'notRead' ? 'var(--mute)' : colour}
        >
          {words}
        </text>
      ))}
      {/* Inches are longer: as large as fits between the eye's middle and the edge of the drawing. */}
      <text x={x} y={261} textAnchor="middle" fontSize={spec.length > 10 ? 11 : 13} className="num" fill="var(--mute)">
        {spec}
      </text>
    </DrawnPart>
  );
}

const summary = (tray: Tray, suspects: Suspect[]): string =>
  suspects.map((s) => `${s.label}: ${Math.round(100 * s.probability)} %. `).join('') +
  summaryOf('Cutaway of a float-bowl carburetor', tray);
