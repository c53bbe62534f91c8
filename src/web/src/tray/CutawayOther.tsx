import type { ReactNode } from 'react';

const cast = { fill: 'url(#cast-other)', stroke: 'var(--cast-line)', strokeWidth: 1.5 } as const;
const hollow = { fill: 'var(--sheet)', stroke: 'var(--cast-line)', strokeWidth: 1.5 } as const;

function Frame({ label, children }: { label: string; children: ReactNode }) {
  return (
    <svg viewBox="0 0 340 282" className="w-full" role="group" aria-label={label}>
      <defs>
        <pattern id="cast-other" width={7} height={7} patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width={7} height={7} fill="var(--cast)" />
          <line x1={0} x2={0} y1={0} y2={7} stroke="var(--cast-line)" strokeWidth={1.3} opacity={0.55} />
        </pattern>
      </defs>
      {children}
    </svg>
  );
}

/** A diaphragm carburetor cut open: pump side above the throat, metering side below it. */
export function DiaphragmCutaway({ children }: { children?: ReactNode }) {
  return (
    <Frame label="A diaphragm carburetor, cut open: pump side above, metering side below">
      <path d="M24 56H316V206H24Z" {...cast} />
      <path
        d="M14 98C90 98 130 112 170 112C210 112 250 98 326 98V150C250 150 210 138 170 138C130 138 90 150 14 150Z"
        {...hollow}
      />
      <path d="M54 103L48 146M286 146L298 103" stroke="var(--cast-line)" strokeWidth={5} strokeLinecap="round" />
      <path d="M70 124h40m-9-6l9 6l-9 6" fill="none" stroke="var(--tick)" strokeWidth={1.8} />
      {/* Pump side: screen, membrane, cover with its stub. */}
      <path d="M60 56V22q0-8 8-8H272q8 0 8 8V56" {...cast} />
      <path d="M78 56V34H262V56Z" {...hollow} />
      <path d="M66 50H274" stroke="var(--ink)" strokeWidth={3} />
      <path d="M60 30H24" stroke="var(--brass-line)" strokeWidth={9} />
      <rect x={88} y={56} width={34} height={14} {...hollow} />
      <path d="M90 59l30 8M90 67l30-8" stroke="var(--mute)" strokeWidth={1.4} />
      {/* Needle feed, needle, lever and spring in the metering chamber. */}
      <path d="M105 70V92M105 156V190" stroke="var(--fuel)" strokeWidth={7} />
      <path d="M76 206V226H264V206Z" {...hollow} />
      <path d="M101 190h8v14h-8z" fill="var(--mute)" />
      <path d="M105 208L176 216" stroke="var(--brass-line)" strokeWidth={4} strokeLinecap="round" />
      <circle cx={132} cy={211} r={4} fill="var(--sheet)" stroke="var(--cast-line)" strokeWidth={2} />
      <path d="M64 228Q170 222 276 228" fill="none" stroke="var(--ink)" strokeWidth={3} />
      <rect x={146} y={219} width={48} height={5} fill="var(--mute)" />
      <path d="M60 232H280V250q0 8-8 8H68q-8 0-8-8Z" {...cast} />
      <path d="M165 258v-14h10v14" {...hollow} />
      {/* Main nozzle and idle ports. */}
      <path d="M170 206V134" stroke="var(--brass-line)" strokeWidth={8} />
      <path d="M232 206V168H270V150M256 168V150" fill="none" stroke="var(--sheet)" strokeWidth={3.5} />
      {/* Pulse passage from the flange to the pump. */}
      <path d="M316 78H246V56" fill="none" stroke="var(--sheet)" strokeWidth={3.5} />
      {children}
    </Frame>
  );
}

/** A suction-tank carburetor cut open: the throat on top, pickup pipes down into the tank. */
export function TankCutaway({ children }: { children?: ReactNode }) {
  return (
    <Frame label="A carburetor on its tank, cut open: throat above, pickup pipes in the tank">
      <path d="M14 24H326V44C270 44 222 52 170 52C118 52 70 44 14 44Z" {...cast} />
      <path d="M14 122H326V96C270 96 222 88 170 88C118 88 70 96 14 96Z" {...cast} />
      <path d="M56 46L50 94M284 94L296 46" stroke="var(--cast-line)" strokeWidth={5} strokeLinecap="round" />
      <path d="M74 70h40m-9-6l9 6l-9 6" fill="none" stroke="var(--tick)" strokeWidth={1.8} />
      {/* Choke chamber with its diaphragm and spring under the body. */}
      <path d="M40 122V146H120V122Z" {...hollow} />
      <path d="M40 136Q80 128 120 136" fill="none" stroke="var(--ink)" strokeWidth={3} />
      <path d="M72 146l16-3-16-3 16-3" fill="none" stroke="var(--mute)" strokeWidth={2} />
      <path d="M80 122V100" stroke="var(--sheet)" strokeWidth={3.5} />
      {/* Tank with its fuel, pipes with screens, mixture screw. */}
      <path
        d="M22 148H318V262q0 10-10 10H32q-10 0-10-10Z"
        fill="var(--sheet)"
        stroke="var(--cast-line)"
        strokeWidth={4}
      />
      <path d="M24 196H316V260q0 10-10 10H34q-10 0-10-10Z" fill="var(--fuel)" />
      <path d="M24 196H316" stroke="var(--fuel-line)" strokeWidth={2} />
      <path d="M158 122V244M186 122V226" stroke="var(--brass-line)" strokeWidth={8} />
      <path
        d="M150 240h16v16h-16zM178 222h16v16h-16z"
        fill="var(--steel-2)"
        stroke="var(--cast-line)"
        strokeWidth={1.5}
      />
      <path d="M172 122V88M262 122v-22" stroke="var(--sheet)" strokeWidth={3.5} />
      <path d="M158 112H262V96" fill="none" stroke="var(--sheet)" strokeWidth={3.5} />
      <path d="M236 106H326M316 100v12" stroke="var(--brass-line)" strokeWidth={6} />
      <path d="M286 148v-12h22v12" {...hollow} />
      {children}
    </Frame>
  );
}
