import type { Finding, Line, Tray } from '../api/client';

/** The colour of a part by what was found of it. */
export const tones = {
  good: 'var(--ok)',
  notGood: 'var(--bad)',
  cannotTell: 'var(--unsure)',
  notRead: 'var(--cast-line)',
} as const;

/** Dashed while a part has not been judged, solid once it has. */
export const outline = (line: Line | undefined) => {
  const verdict = line?.judgement.verdict ?? 'notRead';
  return {
    stroke: tones[verdict],
    strokeWidth: verdict === 'notRead' ? 1.4 : 2.4,
    strokeDasharray: verdict === 'notRead' ? '3 3' : verdict === 'cannotTell' ? '5 3' : undefined,
  };
};

export const lineOf = (tray: Tray, key: string): Line | undefined => tray.lines.find((line) => line.key === key);

/** What was found on a line: one of the words that Core declares. */
export const findingOf = (line: Line | undefined): Finding => line?.judgement.finding ?? 'notRead';

/** What a drawing says to whoever does not see it. */
export const summaryOf = (what: string, tray: Tray): string =>
  `${what}. ${tray.lines.map((line) => `${line.label}: ${line.judgement.word}`).join('. ') || 'Nothing judged yet'}.`;
