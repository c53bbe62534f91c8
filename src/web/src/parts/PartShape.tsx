import type { ReactNode } from 'react';

/** How a part is painted: there already, about to go in, still to come, or wrong. */
export type Paint = 'in' | 'next' | 'open' | 'wrong';

interface ShapeProps {
  part: string;
  way: string | null;
}

const W = 108; // half the width of a large flat part
const D = 26; // half its depth, seen from a little above

const slab = (w: number, d: number, h: number): ReactNode => (
  <>
    <path d={`M${-w} ${-h / 2}v${h}a${w} ${d} 0 0 0 ${2 * w} 0v${-h}`} />
    <ellipse cx={0} cy={-h / 2} rx={w} ry={d} />
  </>
);

const ring = (w: number, d: number, band: number): ReactNode => (
  <path
    fillRule="evenodd"
    d={`M${-w} 0a${w} ${d} 0 1 0 ${2 * w} 0a${w} ${d} 0 1 0 ${-2 * w} 0zM${-w + band} 0a${w - band} ${d - band * 0.4} 0
      1 0 ${2 * (w - band)} 0a${w - band} ${d - band * 0.4} 0 1 0 ${-2 * (w - band)} 0z`}
  />
);

const flange = (holeShift: number): ReactNode => (
  <>
    <path d={`M${-W} 6l34 -24h${2 * W - 68}l34 24l-34 24h${-(2 * W - 68)}z`} />
    <ellipse cx={0} cy={6 + holeShift} rx={26} ry={8} className="hole" />
    <circle cx={-74} cy={6} r={5} className="hole" />
    <circle cx={74} cy={6} r={5} className="hole" />
  </>
);

const coil = (turns: number, w: number, h: number): ReactNode => {
  const step = h / turns;
  const points = Array.from({ length: turns * 2 + 1 }, (_, i) => `${i % 2 ? w : -w},${-h / 2 + (i * step) / 2}`);
  return <polyline points={points.join(' ')} className="wire" />;
};

const needle = <path d="M-9 -30h18v34l-9 22l-9 -22z" />;

/** Tall side: the hole lies low in a plate that stands tall side up. */
const offset = (way: string | null): number => (way === 'up' ? 9 : way === 'down' ? -9 : 0);

/**
 * One part, drawn around its middle, about 216 wide and 70 high, seen from a little above, the base below it. Its way
 * round shows in the drawing.
 */
export function PartShape({ part, way }: ShapeProps): ReactNode {
  switch (part) {
    case 'bowl-gasket':
      return ring(W, D, 13);
    case 'intake-gasket':
    case 'spacer-gasket':
    case 'manifold-gasket':
    case 'outer-gasket':
    case 'filter-gasket':
    case 'insulator':
      return (
        <>
          {part === 'insulator' && <path d={`M${-W} 6v14l34 24h${2 * W - 68}l34 -24v-14`} />}
          {flange(offset(way))}
        </>
      );
    case 'metering-gasket':
    case 'pump-gasket':
    case 'tank-gasket':
      return ring(W, D + 4, 24);
    case 'metering-diaphragm':
    case 'choke-diaphragm': {
      const below = way !== 'toward-cover';
      const plate = (
        <>
          <ellipse cx={0} cy={below ? 11 : -9} rx={46} ry={12} className="metal" />
          {part === 'metering-diaphragm' && (
            <path d={below ? 'M-6 20h12v9a6 4 0 0 1 -12 0z' : 'M-6 -18h12v-9a6 4 0 0 0 -12 0z'} className="metal" />
          )}
        </>
      );
      return (
        <>
          {below && plate}
          <ellipse cx={0} cy={0} rx={W} ry={D} fillOpacity={below ? 0.75 : 1} />
          {!below && plate}
        </>
      );
    }
    case 'pump-diaphragm':
      return (
        <>
          <ellipse cx={0} cy={0} rx={W} ry={D} />
          <path d="M-62 6a22 12 0 0 1 34 -10l-8 12zM62 6a22 12 0 0 0 -34 -10l8 12z" className="hole" />
        </>
      );
    case 'pump-cover':
    case 'metering-cover':
    case 'purge-cover':
      return (
        <>
          {slab(W, D + 2, 18)}
          {part === 'purge-cover' && <ellipse cx={0} cy={-14} rx={34} ry={16} fillOpacity={0.6} />}
          {part !== 'metering-cover' ? (
            <path d={way === 'right' ? `M${W - 6} -6h44v14h-44z` : `M${6 - W} -6h-44v14h44z`} className="metal" />
          ) : (
            <ellipse cx={0} cy={-9} rx={7} ry={3.5} className="hole" />
          )}
          {[-70, 70].map((x) => (
            <ellipse key={x} cx={x} cy={-9} rx={7} ry={4} className="hole" />
          ))}
        </>
      );
    case 'bowl':
      return way === 'away' ? (
        <>
          <path d={`M${-W} 30V-8q0 -12 12 -14h84l14 -14h86q12 0 12 12V30`} />
          <ellipse cx={0} cy={30} rx={W} ry={12} className="hole" />
        </>
      ) : (
        <>
          <path d={`M${-W} 30V-24q0 -12 12 -12h86l14 14h84q12 2 12 14V30`} />
          <ellipse cx={0} cy={30} rx={W} ry={12} className="hole" />
        </>
      );
    case 'bowl-nut':
    case 'drain-bolt':
      return (
        <>
          <path d="M-12 8h24v26a12 6 0 0 1 -24 0z" className="metal" />
          <ellipse cx={0} cy={9} rx={44} ry={11} className="metal" />
          <path d="M-34 -4l16 -14h36l16 14v10l-16 10h-36l-16 -10z" className="metal" />
        </>
      );
    case 'float':
      return (
        <>
          <path d="M-62 -4q-46 0 -46 20t46 20t46 -20q0 -20 -46 -20zM62 -4q-46 0 -46 20t46 20t46 -20q0 -20 -46 -20z" />
          <path d="M-40 -4q0 -14 40 -14t40 14" className="wire" />
          <path d="M-26 -20h52" className="wire thick" />
        </>
      );
    case 'needle':
      return needle;
    case 'seat':
      return (
        <>
          {slab(40, 12, 34)}
          <ellipse cx={0} cy={-17} rx={12} ry={4.5} className="hole" />
          {way !== null && (
            <path
              d={way === 'outward' ? 'M-40 -9a40 12 0 0 0 80 0' : 'M-40 9a40 12 0 0 0 80 0'}
              className="wire thick"
            />
          )}
        </>
      );
    case 'idle-jet':
    case 'main-jet':
      return (
        <>
          <path d="M-14 -2h28v26a14 6 0 0 1 -28 0z" className="metal" />
          <path d="M-30 -14a30 9 0 0 1 60 0v12a30 9 0 0 1 -60 0z" className="metal" />
          <path d="M-22 -14h44" className="wire thick" />
        </>
      );
    case 'emulsion-tube': {
      const rows = [-20, -8, 4, 16];
      const sparse = way === 'more-up' ? 16 : way === 'more-down' ? -20 : null;
      return (
        <>
          <path d="M-16 -34h32v66a16 5 0 0 1 -32 0z" className="metal" />
          {rows.map((y) => (
            <g key={y}>
              {y !== sparse && <circle cx={-6} cy={y} r={3.5} className="hole" />}
              {(sparse === null || Math.abs(y - sparse) > 14) && <circle cx={7} cy={y} r={3.5} className="hole" />}
            </g>
          ))}
        </>
      );
    }
    case 'inlet-screen':
      return (
        <>
          {slab(44, 14, 8)}
          <path
            d="M-30 -12l60 16M-38 -4l50 13M-14 -16l52 13M30 -12l-60 16M38 -4l-50 13M14 -16l-52 13"
            className="wire thin"
          />
        </>
      );
    case 'metering-spring':
      return coil(5, 16, 56);
    case 'governor-spring':
    case 'throttle-spring':
    case 'idle-spring':
    case 'choke-return-spring':
      return (
        <>
          {coil(7, 11, 46)}
          <path d="M-11 -23q11 -18 11 -4M11 23q-11 18 -11 4" className="wire" />
        </>
      );
    case 'air-vane':
      return (
        <>
          <path d="M-96 -22q70 -14 110 10l82 18v14l-96 -6q-50 -4 -96 8z" />
          <circle cx={-60} cy={-4} r={6} className="hole" />
          <circle cx={-22} cy={-2} r={6} className="hole" />
        </>
      );
    case 'choke-small-spring':
      return <g transform={way === 'crooked' ? 'rotate(28)' : undefined}>{coil(6, 9, 44)}</g>;
    case 'choke-clip':
      return <path d="M-34 14q-8 -34 34 -34t34 34l-12 4q4 -24 -22 -24t-22 24z" className="metal" />;
    case 'manifold':
      return (
        <>
          <path d="M-84 -30h168v12h-40q-6 0 -6 8v20q0 8 6 8h40v12h-168v-12h40q6 0 6 -8v-20q0 -8 -6 -8h-40z" />
          <ellipse cx={0} cy={-24} rx={24} ry={6} className="hole" />
        </>
      );
    case 'deflector':
    case 'muffler-deflector':
      return (
        <>
          <path d="M-96 24l30 -44h132l30 44l-16 8l-26 -38h-108l-26 38z" className="metal" />
          <ellipse cx={0} cy={-8} rx={26} ry={7} className="hole" />
        </>
      );
    case 'control-plate':
      return (
        <>
          <path d="M-96 -18h150l42 20v16h-192z" className="metal" />
          <ellipse cx={-24} cy={0} rx={26} ry={9} className="hole" />
          <path d="M56 2v-30h20" className="wire thick" />
        </>
      );
    case 'choke-spring':
      return (
        <>
          {coil(4, 30, 44)}
          <ellipse cx={0} cy={way === 'inward' ? 28 : -28} rx={48} ry={11} className="metal" />
        </>
      );
    case 'metering-lever':
      return (
        <>
          <path d="M-100 10l84 -14l10 8l-86 14z" className="metal" />
          {way === 'beside' ? (
            <path d="M-12 -2l34 -14M-8 6l36 -4" className="wire thick" />
          ) : (
            <>
              <path d="M-14 -4l48 -16M-8 6l48 -6" className="wire thick" />
              <circle cx={34} cy={-8} r={8} />
            </>
          )}
          <path d="M-60 -14v36" className="wire thick" />
        </>
      );
    case 'mounting-bolts':
    case 'tank-screws':
      return (
        <>
          {[-72, -24, 24, 72].map((x, i) => (
            <g key={x}>
              <path d={`M${x - 5} -14h10v${i < 2 ? 48 : 28}h-10z`} className="metal" />
              <ellipse cx={x} cy={-16} rx={15} ry={6} className="metal" />
            </g>
          ))}
        </>
      );
    case 'carburetor':
      return (
        <>
          <path d={`M-70 -30h140v22h${W - 74}v34h${-(W - 74)}v10h-140v-10h${-(W - 74)}v-34h${W - 74}z`} />
          <ellipse cx={0} cy={2} rx={30} ry={24} className="hole" />
        </>
      );
    case 'air-cleaner':
    case 'filter-housing':
      return (
        <>
          <path d={`M${-W + 6} 32v-46q0 -18 20 -18h${2 * W - 52}q20 0 20 18v46z`} />
          <path d="M-64 -4h128M-64 10h128" className="wire thin" />
          {part === 'filter-housing' ? (
            [-80, 80].map((x) => <path key={x} d={`M${x - 7} 22h14v20h-14z`} className="metal" />)
          ) : (
            <path d="M-4 -40h8v84h-8z" className="metal" />
          )}
        </>
      );
    case 'idle-speed-screw':
    case 'main-needle':
    case 'idle-needle':
    case 'high-needle':
    case 'low-needle':
    case 'mixture-screw':
      return (
        <>
          <path d="M-7 -18h14v36l-7 22l-7 -22z" className="metal" />
          <path d="M-13 -12l26 6l-26 6l26 6l-26 6" className="wire" />
          <path d="M-24 -38h48v18h-48z" className="metal" />
          <path d="M-18 -38h36" className="wire thick" />
        </>
      );
    case 'hose-clips':
      return (
        <>
          <circle cx={0} cy={6} r={24} className="wire thick" />
          <path d="M-12 -16l-10 -22M12 -16l10 -22" className="wire thick" />
        </>
      );
    case 'fuel-filter':
      return (
        <>
          <path d="M-40 -26h80v52h-80z" />
          <path d="M-84 -8h44v16h-44zM40 -8h44v16h-44z" className="metal" />
          <path d="M-22 -26v52M0 -26v52M22 -26v52" className="wire" />
        </>
      );
    case 'fuel-tap':
      return (
        <>
          <path d="M-84 -9h168v18h-168z" className="metal" />
          <path d="M-16 -20h32v40h-32z" className="metal" />
          <path d="M0 -20v-18M-24 -38h48" className="wire thick" />
        </>
      );
    case 'primer-bulb':
      return (
        <>
          <path d="M-44 20a44 44 0 0 1 88 0z" />
          <path d="M-56 20h112v12h-112z" className="metal" />
        </>
      );
    case 'tank-grommet':
      return (
        <>
          <path d="M-34 -26h68v14h-8v24h8v14h-68v-14h8v-24h-8z" />
          <path d="M-6 -26v52M6 -26v52" className="wire" />
        </>
      );
    case 'tank-vent':
      return (
        <>
          <path d="M-20 -34h40v30h-40z" />
          <path d="M-8 -4h16v38h-16z" className="metal" />
        </>
      );
    case 'spark-plug':
      return (
        <>
          <path d="M-12 -48h24v34h-24z" />
          <path d="M-22 -14h44v16h-44z" className="metal" />
          <path d="M-12 2h24v30h-24z" className="metal" />
          <path d="M0 32v8M12 32v14h-12" className="wire thick" />
        </>
      );
    case 'shut-off-wire':
    case 'stop-wire':
    case 'control-cable':
    case 'throttle-link':
    case 'governor-link':
    case 'choke-link':
      return <path d="M-104 22v-30h180q20 0 20 -22" className="wire thick" />;
    case 'fuel-hose':
    case 'breather-hose':
    case 'overflow-hose':
      return (
        <>
          <path d="M-96 -14h192v28h-192z" />
          <ellipse cx={96} cy={0} rx={8} ry={14} className="hole" />
        </>
      );
    case 'plunger':
      return (
        <>
          <path d="M-46 -34h92v10h-92z" className="metal" />
          <path d="M-8 -24h16v26h-16z" className="metal" />
          <path d="M-22 -20l44 7l-44 7l44 7l-44 7" className="wire" />
          <path d="M-18 12h36v12l-10 10h-16l-10 -10z" className="metal" />
        </>
      );
    case 'shut-off-plunger':
      return (
        <>
          <path d="M-30 -36h60v40h-60z" />
          <path d="M-10 4h20v16l-10 18l-10 -18z" className="metal" />
          <path d="M30 -26h34" className="wire thick" />
        </>
      );
    case 'main-nozzle':
      return (
        <>
          <path d="M-16 -36h32v52h-32z" className="metal" />
          <path d="M-16 -20h32M-16 -6h32" className="wire thin" />
          <circle cx={0} cy={28} r={9} className="metal" />
        </>
      );
    case 'welch-plugs':
      return (
        <>
          {[-44, 44].map((x) => (
            <g key={x} transform={`translate(${x} 0)`}>
              <ellipse cx={0} cy={8} rx={36} ry={15} className="metal" />
              <path d="M-36 8q36 -34 72 0" className="metal" />
            </g>
          ))}
        </>
      );
    case 'needle-rings':
    case 'mixture-seal':
      return ring(34, 12, 9);
    default:
      return slab(60, 16, 22);
  }
}
