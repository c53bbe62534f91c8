import type { ReactNode } from 'react';
import type { Finding, Line, Tray } from '../api/client';
import { DrawnPart } from './DrawnPart';
import { findingOf, lineOf, outline, summaryOf, tones } from './drawn';

interface Props {
  tray: Tray;
  /** Leads to a line; without it nothing in the drawing is pressed. */
  onPick?: ((line: Line) => void) | undefined;
  /** Drawn over it, in its own measure: 340 by 282. */
  children?: ReactNode;
}

const cast = { fill: 'url(#cast-other)', stroke: 'var(--cast-line)', strokeWidth: 1.5 } as const;
const hollow = { fill: 'var(--sheet)', stroke: 'var(--cast-line)', strokeWidth: 1.5 } as const;

/** Fuel where none should be. */
const drop = (x: number, y: number) => (
  <path d={`M${x} ${y}q-5 8 0 10q5-2 0-10`} fill="var(--bad)" stroke="var(--sheet)" strokeWidth={0.8} />
);

function Frame({ label, caption, children }: { label: string; caption: string; children: ReactNode }) {
  return (
    <>
      <svg viewBox="0 0 340 276" className="w-full" role="group" aria-label={label}>
        <defs>
          <pattern id="cast-other" width={7} height={7} patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <rect width={7} height={7} fill="var(--cast)" />
            <line x1={0} x2={0} y1={0} y2={7} stroke="var(--cast-line)" strokeWidth={1.3} opacity={0.55} />
          </pattern>
        </defs>
        {children}
      </svg>
      {caption !== '' && <p className="px-3 pb-1.5 leading-tight">{caption}</p>}
    </>
  );
}

/** What stands out of the lines that are drawn: what is not good, else what is not decided. */
function captionOf(lines: (Line | undefined)[]): string {
  const of = (verdict: string): Line[] =>
    lines.filter((line) => line !== undefined).filter((line) => line.judgement.verdict === verdict);
  const bad = of('notGood');
  const first = bad[0] ?? of('cannotTell')[0];
  if (!first) return '';
  return `${first.label}: ${first.judgement.word.toLowerCase()}${bad.length > 1 ? `, and ${bad.length - 1} more` : ''}`;
}

/** How far the lever’s end is drawn off its place. A low one lies away from the membrane, toward the throat: up in the drawing. */
const leverShift: Partial<Record<Finding, number>> = { leverLow: -9, leverHigh: 9 };

/**
 * A diaphragm carburetor cut open, drawn from the tray's readings: pump side above the throat, metering side below it.
 * The lever stands as it was measured, the fork beside the needle when it was found there, a membrane as it was felt.
 */
export function DiaphragmCutaway({ tray, onPick, children }: Props) {
  const line = (key: string): Line | undefined => lineOf(tray, `setting/${key}`);
  const [height, fork, spring] = [line('lever-height'), line('lever-fork'), line('lever-spring')];
  const [membrane, flaps, nozzle] = [line('metering-diaphragm'), line('pump-flaps'), line('nozzle-valve')];
  const [screen, hold, popOff] = [line('inlet-passes'), line('hold-test'), line('pop-off')];
  const lever = leverShift[findingOf(height)] ?? 0;
  const beside = findingOf(fork) === 'beside' ? 11 : 0;
  const crackles = findingOf(membrane) === 'crackles';
  const leaks = findingOf(hold) === 'leaks';
  const all = [hold, popOff, height, fork, spring, membrane, flaps, nozzle, screen];
  return (
    <Frame
      label={summaryOf('A diaphragm carburetor, cut open: pump side above, metering side below', tray)}
      caption={children ? '' : captionOf(all)}
    >
      <path d="M24 56H316V206H24Z" {...cast} />
      <path
        d="M14 98C90 98 130 112 170 112C210 112 250 98 326 98V150C250 150 210 138 170 138C130 138 90 150 14 150Z"
        {...hollow}
      />
      <path d="M54 103L48 146M286 146L298 103" stroke="var(--cast-line)" strokeWidth={5} strokeLinecap="round" />
      <path d="M70 124h40m-9-6l9 6l-9 6" fill="none" stroke="var(--tick)" strokeWidth={1.8} />
      {/* Pump side: screen, membrane with its flaps, cover with its stub. */}
      <path d="M60 56V22q0-8 8-8H272q8 0 8 8V56" {...cast} />
      <path d="M78 56V34H262V56Z" {...hollow} />
      <path d="M60 30H24" stroke="var(--brass-line)" strokeWidth={9} />
      <DrawnPart line={flaps} onPick={onPick}>
        <path d="M66 50H274" stroke="var(--ink)" strokeWidth={3} />
        {[150, 206].map((x) => (
          <path
            key={x}
            d={findingOf(flaps) === 'curled' ? `M${x} 50q14 0 20-12` : `M${x} 50h22`}
            fill="none"
            {...outline(flaps)}
            strokeWidth={5}
          />
        ))}
      </DrawnPart>
      <DrawnPart line={screen} onPick={onPick}>
        <rect x={88} y={56} width={34} height={14} fill="var(--sheet)" {...outline(screen)} />
        <path d="M90 59l30 8M90 67l30-8" stroke="var(--mute)" strokeWidth={1.4} />
        {findingOf(screen) === 'stays' && drop(105, 44)}
      </DrawnPart>
      {/* Needle feed, needle, lever and spring in the metering chamber. */}
      <path d="M105 70V92M105 156V190" stroke="var(--fuel)" strokeWidth={7} />
      <path d="M76 206V238H264V206Z" {...hollow} />
      <DrawnPart line={hold ?? popOff} onPick={onPick}>
        <path d="M99 186h12v8h-12z" fill="var(--brass)" {...outline(hold)} />
        <path d="M102 192h6v12h-6z" fill="var(--mute)" {...outline(popOff)} />
        {leaks && drop(96, 200)}
        {leaks && drop(114, 204)}
      </DrawnPart>
      <DrawnPart line={fork} onPick={onPick}>
        <circle cx={105 + beside} cy={211} r={5} fill={beside ? tones.notGood : 'var(--sheet)'} {...outline(fork)} />
      </DrawnPart>
      <DrawnPart line={height} onPick={onPick}>
        <path
          d={`M${105 + beside} 211L132 214L190 ${223 + lever}`}
          fill="none"
          stroke={height && height.judgement.verdict !== 'notRead' ? outline(height).stroke : 'var(--brass-line)'}
          strokeWidth={5}
          strokeLinejoin="round"
          strokeLinecap="round"
        />
        <path d="M198 223h30" stroke="var(--ok)" strokeWidth={1.6} strokeDasharray="5 4" />
      </DrawnPart>
      <circle cx={132} cy={214} r={4} fill="var(--sheet)" stroke="var(--cast-line)" strokeWidth={2} />
      <DrawnPart line={spring} onPick={onPick}>
        <path
          d={findingOf(spring) === 'crooked' ? 'M164 206l10 3-7 2 12 2-6 3' : 'M152 206l14 2.5-14 2.5 14 2.5-14 2.5'}
          fill="none"
          {...outline(spring)}
          strokeDasharray={undefined}
          strokeWidth={2.4}
        />
      </DrawnPart>
      <DrawnPart line={membrane} onPick={onPick}>
        <path
          d={
            crackles
              ? 'M64 240l24-5 22 6 24-7 22 5 24-6 24 7 22-6 26 7 24-1'
              : findingOf(membrane) === 'holed'
                ? 'M64 240Q120 235 156 235M176 235Q230 236 276 240'
                : 'M64 240Q170 234 276 240'
          }
          fill="none"
          {...outline(membrane)}
          strokeWidth={4}
        />
        <rect x={146} y={238} width={48} height={4} fill="var(--mute)" />
      </DrawnPart>
      <path d="M60 246H280V262q0 8-8 8H68q-8 0-8-8Z" {...cast} />
      <path d="M165 270v-14h10v14" {...hollow} />
      {/* Main nozzle and idle ports. */}
      <DrawnPart line={nozzle} onPick={onPick}>
        <path d="M170 206V134" stroke="var(--brass-line)" strokeWidth={8} />
        <circle cx={170} cy={184} r={6} fill="var(--sheet)" {...outline(nozzle)} />
        {findingOf(nozzle) === 'both' && (
          <path d="M184 196v-24m-5 7l5-7 5 7m-10 10l5 7 5-7" fill="none" stroke="var(--bad)" strokeWidth={2} />
        )}
      </DrawnPart>
      <path d="M232 206V168H270V150M256 168V150" fill="none" stroke="var(--sheet)" strokeWidth={3.5} />
      {/* Pulse passage from the flange to the pump. */}
      <path d="M316 78H246V56" fill="none" stroke="var(--sheet)" strokeWidth={3.5} />
      {children}
    </Frame>
  );
}

/**
 * A suction-tank carburetor cut open, drawn from the tray's readings: the throat on top, pickup pipes down into the tank.
 * Fuel in the choke's chamber, a spring in the wrong pocket, a dark screen, a cracked tank stand in it as they were seen.
 */
export function TankCutaway({ tray, onPick, children }: Props) {
  const line = (key: string): Line | undefined => lineOf(tray, `setting/${key}`);
  const [screens, chamber, springs] = [line('pickup-screens'), line('choke-chamber'), line('choke-springs')];
  const [gasket, top] = [line('tank-gasket'), line('tank-top')];
  const jet = lineOf(tray, 'gauging/main-jet');
  const dark = ['slow', 'blocked'].includes(findingOf(screens));
  const wet = findingOf(chamber) === 'wet';
  const wrong = findingOf(springs);
  const bent = findingOf(top) === 'bent';
  return (
    <Frame
      label={summaryOf('A carburetor on its tank, cut open: throat above, pickup pipes in the tank', tray)}
      caption={children ? '' : captionOf([chamber, springs, screens, gasket, top, jet])}
    >
      <path d="M14 24H326V44C270 44 222 52 170 52C118 52 70 44 14 44Z" {...cast} />
      <path d="M14 122H326V96C270 96 222 88 170 88C118 88 70 96 14 96Z" {...cast} />
      <path d="M56 46L50 94M284 94L296 46" stroke="var(--cast-line)" strokeWidth={5} strokeLinecap="round" />
      <path d="M74 70h40m-9-6l9 6l-9 6" fill="none" stroke="var(--tick)" strokeWidth={1.8} />
      {/* Choke chamber with its diaphragm and spring under the body. */}
      <DrawnPart line={chamber} onPick={onPick}>
        <path d="M40 122V146H120V122Z" fill={wet ? 'var(--fuel)' : 'var(--sheet)'} {...outline(chamber)} />
        <path d="M40 136Q80 128 120 136" fill="none" stroke="var(--ink)" strokeWidth={3} />
        {wet && drop(58, 136)}
      </DrawnPart>
      <DrawnPart line={springs} onPick={onPick}>
        <path
          d={wrong === 'large' ? 'M98 146l16-3-16-3 16-3' : 'M72 146l16-3-16-3 16-3'}
          fill="none"
          {...outline(springs)}
          strokeDasharray={undefined}
          strokeWidth={2.4}
        />
        <path
          d={wrong === 'tiny' ? 'M78 131l9-3-5-4 8-2' : 'M77 131l6-2-6-2 6-2'}
          fill="none"
          {...outline(springs)}
          strokeDasharray={undefined}
          strokeWidth={2}
        />
      </DrawnPart>
      <path d="M80 122V100" stroke="var(--sheet)" strokeWidth={3.5} />
      {/* Tank with its fuel, gasket, pipes with screens, mixture screw. */}
      <path
        d="M22 148H318V262q0 10-10 10H32q-10 0-10-10Z"
        fill="var(--sheet)"
        stroke="var(--cast-line)"
        strokeWidth={4}
      />
      <DrawnPart line={top} onPick={onPick}>
        <path d={bent ? 'M22 150Q170 164 318 150' : 'M22 150H318'} fill="none" {...outline(top)} strokeWidth={4} />
        {findingOf(top) === 'cracked' && (
          <path d="M232 148l8 8-6 7 9 9-4 8" fill="none" stroke="var(--bad)" strokeWidth={2.4} />
        )}
      </DrawnPart>
      <DrawnPart line={gasket} onPick={onPick}>
        <path d="M22 147H74M88 147H150M194 147H284M310 147H318" fill="none" {...outline(gasket)} strokeWidth={4} />
        {findingOf(gasket) === 'covered' && <path d="M150 147h44" stroke="var(--bad)" strokeWidth={5} />}
      </DrawnPart>
      <path d="M24 196H316V260q0 10-10 10H34q-10 0-10-10Z" fill="var(--fuel)" />
      <path d="M24 196H316" stroke="var(--fuel-line)" strokeWidth={2} />
      <path d="M158 122V244M186 122V226" stroke="var(--brass-line)" strokeWidth={8} />
      <DrawnPart line={screens} onPick={onPick}>
        <path
          d="M150 240h16v16h-16zM178 222h16v16h-16z"
          fill={dark ? 'var(--ink)' : 'var(--steel-2)'}
          {...outline(screens)}
        />
      </DrawnPart>
      <DrawnPart line={jet} onPick={onPick}>
        <path d="M172 122V88" stroke="var(--sheet)" strokeWidth={3.5} />
        <circle cx={172} cy={106} r={6} fill="var(--brass)" {...outline(jet)} />
      </DrawnPart>
      <path d="M262 122v-22" stroke="var(--sheet)" strokeWidth={3.5} />
      <path d="M178 112H262V96" fill="none" stroke="var(--sheet)" strokeWidth={3.5} />
      <path d="M236 106H326M316 100v12" stroke="var(--brass-line)" strokeWidth={6} />
      <path d="M286 148v-12h22v12" {...hollow} />
      {children}
    </Frame>
  );
}
