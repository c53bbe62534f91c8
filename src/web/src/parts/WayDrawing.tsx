import type { ReactNode } from 'react';

const line = { fill: 'none', stroke: 'currentColor', strokeWidth: 2.2, strokeLinecap: 'round' } as const;
const solid = { fill: 'currentColor', stroke: 'none' } as const;

/** Turned over it is the same: an arrow each way. */
const eitherWay = <path d="M10 36V8M6.5 12L10 7.5 13.5 12M54 8v28M50.5 32L54 36.5 57.5 32" {...line} />;

/** Each way round in a few strokes: what it sits on below, the part above it. */
const drawings: Record<string, ReactNode> = {
  'tall-side/up': (
    <>
      <rect x={20} y={4} width={24} height={36} rx={3} {...line} />
      <circle cx={32} cy={29} r={5.5} {...line} />
      <path d="M12 22V7M8.5 11L12 6.5 15.5 11" {...line} />
    </>
  ),
  'tall-side/down': (
    <>
      <rect x={20} y={4} width={24} height={36} rx={3} {...line} />
      <circle cx={32} cy={15} r={5.5} {...line} />
      <path d="M12 22v15M8.5 33L12 37.5 15.5 33" {...line} />
    </>
  ),
  'tall-side/alike': (
    <>
      <rect x={20} y={4} width={24} height={36} rx={3} {...line} />
      <circle cx={32} cy={22} r={5.5} {...line} />
      {eitherWay}
    </>
  ),
  'groove/into-body': (
    <>
      <path d="M4 40V26h16v14M44 40V26h16v14" {...line} />
      <path d="M21 8h22v18h-4v-7H25v7h-4z" {...solid} />
    </>
  ),
  'groove/outward': (
    <>
      <path d="M4 40V26h16v14M44 40V26h16v14" {...line} />
      <path d="M21 8h4v7h14V8h4v18H21z" {...solid} />
    </>
  ),
  'plate/toward-lever': (
    <>
      <path d="M6 12H58" {...line} />
      <rect x={22} y={14} width={20} height={6} {...solid} />
      <path d="M32 20v5M10 36L40 28" {...line} />
      <circle cx={32} cy={26} r={2.5} {...solid} />
    </>
  ),
  'plate/toward-cover': (
    <>
      <path d="M6 18H58" {...line} />
      <rect x={22} y={10} width={20} height={6} {...solid} />
      <path d="M10 36L40 28" {...line} />
    </>
  ),
  'fork/hooked': (
    <>
      <path d="M4 22H28M28 22q4-8 10-8M28 22q4 8 10 8" {...line} />
      <circle cx={36} cy={22} r={5} {...solid} />
      <path d="M36 27v12" {...line} />
    </>
  ),
  'fork/beside': (
    <>
      <path d="M4 22H24M24 22q4-8 10-8M24 22q4 8 10 8" {...line} />
      <circle cx={50} cy={22} r={5} {...solid} />
      <path d="M50 27v12" {...line} />
    </>
  ),
  'washer/outward': (
    <>
      <path d="M6 41H58" {...line} />
      <path d="M24 38l16-4-16-4 16-4-16-4 16-4" {...line} />
      <rect x={17} y={8} width={30} height={6} rx={2} {...solid} />
    </>
  ),
  'washer/inward': (
    <>
      <path d="M6 41H58" {...line} />
      <rect x={17} y={33} width={30} height={6} rx={2} {...solid} />
      <path d="M24 30l16-4-16-4 16-4-16-4 16-4" {...line} />
    </>
  ),
  'deep-side/under-float': (
    <>
      <path d="M8 20V38H30V30H56V20" {...line} />
      <path d="M12 8H34L28 26H16z" {...solid} />
      <path d="M34 10H54" {...line} />
    </>
  ),
  'deep-side/away': (
    <>
      <path d="M8 20V30H34V38H56V20" {...line} />
      <path d="M12 8H34L28 26H16z" {...solid} />
      <path d="M34 10H54" {...line} />
    </>
  ),
  'deep-side/alike': (
    <>
      <path d="M16 20V36H48V20" {...line} />
      <path d="M22 8h20v14H22z" {...solid} />
      {eitherWay}
    </>
  ),
  'tube-end/more-up': (
    <>
      <rect x={22} y={3} width={20} height={38} rx={4} {...line} />
      {[10, 18, 34].map((y) => (
        <circle key={y} cx={y < 30 ? 28 : 32} cy={y} r={2.4} {...solid} />
      ))}
      {[10, 18].map((y) => (
        <circle key={y} cx={36} cy={y} r={2.4} {...solid} />
      ))}
      <path d="M12 22V7M8.5 11L12 6.5 15.5 11" {...line} />
    </>
  ),
  'tube-end/more-down': (
    <>
      <rect x={22} y={3} width={20} height={38} rx={4} {...line} />
      {[10, 26, 34].map((y) => (
        <circle key={y} cx={y > 20 ? 28 : 32} cy={y} r={2.4} {...solid} />
      ))}
      {[26, 34].map((y) => (
        <circle key={y} cx={36} cy={y} r={2.4} {...solid} />
      ))}
      <path d="M12 22v15M8.5 33L12 37.5 15.5 33" {...line} />
    </>
  ),
  'tube-end/alike': (
    <>
      <rect x={22} y={3} width={20} height={38} rx={4} {...line} />
      {[12, 32].flatMap((y) => [28, 36].map((x) => <circle key={`${x} ${y}`} cx={x} cy={y} r={2.4} {...solid} />))}
      {eitherWay}
    </>
  ),
  'small-spring/straight': (
    <>
      <path d="M4 40V28h22v12M38 40V28h22v12" {...line} />
      <path d="M29 38l6-3-6-3 6-3-6-3 6-3-6-3 6-3-6-3 6-3" {...line} />
    </>
  ),
  'small-spring/crooked': (
    <>
      <path d="M4 40V28h22v12M38 40V28h22v12" {...line} />
      <path d="M29 38l6-3-6-3 6-3-6-3 6-3-6-3 6-3-6-3 6-3" transform="rotate(38 32 24)" {...line} />
    </>
  ),
  'stub-side/left': (
    <>
      <rect x={20} y={10} width={32} height={24} rx={4} {...line} />
      <path d="M20 22H6" {...line} strokeWidth={6} strokeLinecap="butt" />
    </>
  ),
  'stub-side/right': (
    <>
      <rect x={12} y={10} width={32} height={24} rx={4} {...line} />
      <path d="M44 22H58" {...line} strokeWidth={6} strokeLinecap="butt" />
    </>
  ),
};

/** A small drawing of one way round; ways.csv has one for each. */
export function WayDrawing({ group, way, size = 44 }: { group: string; way: string; size?: number }) {
  return (
    <svg viewBox="0 0 64 44" width={(size * 64) / 44} height={size} aria-hidden>
      {drawings[`${group}/${way}`]}
    </svg>
  );
}
