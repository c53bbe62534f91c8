import type { Judgement } from '../api/client';

/** Colour of a verdict; never shown without its word and its form. */
export const verdictText: Record<Judgement['verdict'], string> = {
  good: 'text-ok',
  notGood: 'text-bad',
  cannotTell: 'text-unsure',
  notRead: 'text-mute',
};

/**
 * The form of a verdict: a tick for good, arrows closing in for too small, arrows parting for too large, a cross-bar
 * for otherwise not good, a broken ring for cannot tell, an empty one for not read.
 */
export function VerdictMark({
  judgement,
  size = 20,
}: {
  judgement: Pick<Judgement, 'verdict' | 'lean'>;
  size?: number;
}) {
  return (
    <svg
      width={size * 1.2}
      height={size}
      viewBox="0 0 24 20"
      aria-hidden
      fill="none"
      stroke="currentColor"
      strokeWidth={2.4}
    >
      {markPath(judgement)}
    </svg>
  );
}

function markPath({ verdict, lean }: Pick<Judgement, 'verdict' | 'lean'>) {
  if (verdict === 'good') return <path d="M4 10.5l5 5L20 4" />;
  if (verdict === 'cannotTell') return <circle cx={12} cy={10} r={7.5} strokeDasharray="4 3.2" />;
  if (verdict === 'notRead') return <circle cx={12} cy={10} r={7.5} strokeWidth={1.5} />;
  if (lean === 'below') return <path d="M1 10h8M5.5 5.5L10 10l-4.5 4.5M23 10h-8M18.5 5.5L14 10l4.5 4.5" />;
  if (lean === 'above') return <path d="M10 10H2M6 5.5L1.500 10 6 14.5M14 10h8M18 5.5l4.5 4.5L18 14.5" />;
  return <path d="M5 3l14 14M19 3L5 17" />;
}

export function VerdictWord({ judgement }: { judgement: Judgement }) {
  return (
    <span
      className={`inline-flex shrink-0 items-center gap-1 text-lead leading-tight font-bold ${verdictText[judgement.verdict]}`}
    >
      <VerdictMark judgement={judgement} size={17} />
      {judgement.word}
    </span>
  );
}
