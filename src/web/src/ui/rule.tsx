/** The ticks of a steel rule: the product's one motif. Fills its parent's width. */
export function RuleTicks({ every, of, height = 14 }: { every: number; of: number; height?: number }) {
  return (
    <svg
      aria-hidden
      className="pointer-events-none absolute inset-x-0 top-0 w-full"
      height={height}
      preserveAspectRatio="none"
      viewBox={`0 0 ${of} ${height}`}
    >
      {Array.from({ length: of + 1 }, (_, i) => (
        <line
          key={i}
          x1={i}
          x2={i}
          y1={0}
          y2={i % every === 0 ? height : i % (every / 2) === 0 ? height * 0.7 : height * 0.42}
          stroke="var(--tick)"
          strokeWidth={1}
          vectorEffect="non-scaling-stroke"
        />
      ))}
    </svg>
  );
}
