import { describe, expect, it } from 'vitest';
import type { Report, ReportChapter, ReportPoint } from '../../api/client';
import { OWNER, pointsOf, TECHNICIAN } from './report';

const report = (more: Partial<Report>): Report => ({
  tray: {
    trayNumber: 27,
    ownerName: 'Brine & Sons',
    ownerContact: '',
    machineName: 'Pump',
    stampedNumber: '',
    specCode: null,
    specMaker: null,
    complaint: 'Hunts',
    checkedInAt: '2026-12-01T08:00:00Z',
    promisedDay: '2026-12-05',
    dateCode: '',
    plate: '',
  },
  kit: null,
  lines: [],
  watch: ['Standing for more than a month: run it dry.'],
  releasedAt: null,
  releasedBy: null,
  signed: null,
  faults: [{ label: 'Idle jet blocked', fix: 'Clear it', referred: false }],
  nothingFound: false,
  declined: false,
  parts: [
    { label: 'bowl gasket', fate: 'made', item: null, turnsEighths: null, reason: 'cut from sheet', by: 'Ilse' },
    { label: 'idle needle', fate: 'refitted', item: null, turnsEighths: 12, reason: null, by: 'Ilse' },
  ],
  notDone: ['Nothing was cleaned.'],
  dangers: [],
  points: null,
  ...more,
});

describe('the points of a report', () => {
  it('are those it has', () => {
    const points: ReportPoint[] = [{ chapter: 'run', words: { text: 'It was not run here.', quantities: [] } }];
    expect(pointsOf(report({ points }))).toEqual(points);
  });

  it('are told from what a report from before there were any has', () => {
    const told = pointsOf(report({})).map((one) => `${one.chapter}: ${one.words.text}`);
    expect(told).toEqual([
      'told: Hunts',
      'wrong: Idle jet blocked: put right.',
      'left: Nothing was cleaned.',
      'watch: Standing for more than a month: run it dry.',
      'parts: bowl gasket: made here, cut from sheet',
      'parts: idle needle: refitted, left at 1½ turns out',
    ]);
  });

  it('each stand in one chapter, on one of two pages', () => {
    const all: ReportChapter[] = [...OWNER, ...TECHNICIAN].map(([chapter]) => chapter);
    expect(new Set(all).size).toBe(all.length);
    expect([...all].sort()).toEqual(
      ['told', 'wrong', 'tried', 'done', 'run', 'left', 'watch', 'toCome', 'found', 'parts', 'screws'].sort(),
    );
  });
});
