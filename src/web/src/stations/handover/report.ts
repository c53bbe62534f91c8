import type { Report, ReportChapter, ReportPoint } from '../../api/client';
import { fateWord } from '../../shell/words';
import { turns } from '../../units/format';

/** What the owner reads, on page one. */
export const OWNER: readonly [ReportChapter, string][] = [
  ['told', 'What you told us'],
  ['wrong', 'What was wrong, and what was done'],
  ['tried', 'What else was tried'],
  ['done', 'Cleaned and done besides'],
  ['parts', 'Parts'],
  ['run', 'Run'],
  ['left', 'Left open'],
  ['watch', 'What to watch, and how to store it'],
  ['toCome', 'Still to come'],
];

/** What the next technician reads, on page two. */
export const TECHNICIAN: readonly [ReportChapter, string][] = [
  ['found', 'What was found'],
  ['screws', 'Screws as they were left'],
];

const point = (chapter: ReportChapter, text: string): ReportPoint => ({ chapter, words: { text, quantities: [] } });

/** The points of a report; one from before there were any is told from what it has. */
export const pointsOf = (report: Report): ReportPoint[] =>
  report.points ?? [
    point('told', report.tray.complaint),
    ...(report.faults ?? []).map((fault) =>
      point('wrong', `${fault.label}: ${fault.referred ? 'sent on' : 'put right'}.`),
    ),
    ...(report.nothingFound ? [point('wrong', 'No cause was found; cleaned and renewed as usual.')] : []),
    ...(report.notDone ?? []).map((left) => point('left', left)),
    ...report.watch.map((watch) => point('watch', watch)),
    ...(report.parts ?? []).map((part) =>
      point(
        'parts',
        [
          `${part.label}: ${fateWord[part.fate].toLowerCase()}`,
          part.item && `from ${part.item}`,
          part.turnsEighths != null && `left at ${turns(part.turnsEighths)} turns out`,
          part.reason,
        ]
          .filter(Boolean)
          .join(', '),
      ),
    ),
  ];
