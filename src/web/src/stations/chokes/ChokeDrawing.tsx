import type { ChokeKind } from '../../api/client';

const steel = { fill: 'var(--steel-2)', stroke: 'var(--cast-line)', strokeWidth: 1.6 } as const;
const link = { fill: 'none', stroke: 'var(--brass-line)', strokeWidth: 4, strokeLinecap: 'round' } as const;

const SHUT_DEG = 78;

/** Where the plate's lower edge stands: what moves it is hooked in there. */
function plateEnd(opening: number): { x: number; y: number } {
  const angle = (SHUT_DEG * (1 - opening) * Math.PI) / 180;
  return { x: 110 - 36 * Math.cos(angle), y: 69 + 36 * Math.sin(angle) };
}

/** What moves the plate, drawn as far as it has moved: 0 shut, 1 open. */
function Mover({ choke, opening }: { choke: ChokeKind; opening: number }) {
  const pull = 22 * opening;
  const { x, y } = plateEnd(opening);
  const end = `${x.toFixed(1)} ${y.toFixed(1)}`;
  switch (choke) {
    case 'vacuum':
      return (
        <>
          <path d="M24 112V162H112V112Z" {...steel} />
          <path
            d={`M24 128Q68 ${128 + pull} 112 128`}
            fill="none"
            stroke={opening > 0 ? 'var(--ok)' : 'var(--ink)'}
            strokeWidth={4}
          />
          <path
            d={`M60 160l16-${5 - opening * 3}-16-${5 - opening * 3} 16-${5 - opening * 3}`}
            fill="none"
            stroke="var(--mute)"
            strokeWidth={2.4}
          />
          <path d={`M68 ${128 + pull / 2}L${end}`} {...link} />
        </>
      );
    case 'heat':
      return (
        <>
          <path
            d="M150 112h74v50h-74z"
            fill="var(--bad)"
            fillOpacity={0.12 + 0.4 * opening}
            stroke="var(--cast-line)"
          />
          <path d="M96 126h58v20H96z" {...steel} />
          <path d={`M96 136H${78 - pull}`} stroke="var(--ink)" strokeWidth={7} strokeLinecap="round" />
          <path d={`M${78 - pull} 134L${end}`} {...link} />
          <path
            d="M162 100q6-8 0-16M182 100q6-8 0-16M202 100q6-8 0-16"
            fill="none"
            stroke="var(--bad)"
            strokeWidth={2}
          />
        </>
      );
    case 'lever':
      return (
        <>
          <path d={`M30 150H${150 + pull}`} {...link} />
          <path d={`M${150 + pull} 150l14-16h18v32h-18z`} {...steel} />
          <path d={`M96 150l-8-${22 - pull / 2}`} stroke="var(--ink)" strokeWidth={5} strokeLinecap="round" />
          <path d={`M88 ${128 + pull / 4}L${end}`} {...link} />
          <path d="M60 112a12 12 0 1 1-2 0" fill="none" stroke="var(--mute)" strokeWidth={2.4} />
        </>
      );
    case 'manual':
      return (
        <>
          <path d={`M${end}L${60 - pull} 140H${20 - pull / 2}`} {...link} />
          <circle cx={20 - pull / 2} cy={140} r={11} {...steel} />
        </>
      );
  }
}

/** A choke of its kind with its plate where it stands, seen from the side: air comes from the left. */
export function ChokeDrawing({ choke, opening }: { choke: ChokeKind; opening: number }) {
  // Shut it stands a little off upright, as plates do; open it lies along the air.
  const angle = SHUT_DEG * (1 - opening);
  return (
    <svg
      viewBox="0 0 240 172"
      className="w-full"
      role="img"
      aria-label={`Choke plate ${opening === 0 ? 'shut' : opening === 1 ? 'fully open' : `${Math.round(100 * opening)} % open`}`}
    >
      <path d="M4 16H236V34H4zM4 104H236V122H4z" {...steel} />
      <path
        d="M20 69h44m-9-6l9 6l-9 6"
        fill="none"
        stroke="var(--tick)"
        strokeWidth={2}
        opacity={0.3 + 0.7 * opening}
      />
      <Mover choke={choke} opening={opening} />
      <g transform={`rotate(${-angle} 110 69)`}>
        <path d="M74 69H146" stroke="var(--ink)" strokeWidth={6} strokeLinecap="round" />
      </g>
      <circle cx={110} cy={69} r={5} fill="var(--sheet)" stroke="var(--cast-line)" strokeWidth={2} />
    </svg>
  );
}
