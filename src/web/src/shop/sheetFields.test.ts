import { describe, expect, it } from 'vitest';
import type { SheetForm, SheetIssue, UnitSystem } from '../api/client';
import { linesOf } from './sheetFields';

describe('what a sheet says', () => {
  const issue = {
    numbers: {},
    sheet: {
      maker: 'Ostrel',
      stampedNumbers: ['9-1'],
      jets: [{ label: 'Main jet', boreMm: 0.72, toleranceMm: 0.01 }],
      emulsionRows: [],
      screws: [{ part: 'bowl-nut', torqueNm: 4, turnsOut: null }],
      needs: [
        { part: 'tank gasket', quantity: 1, features: { outer: '92 mm' } },
        { part: 'O-ring', quantity: 2, features: { size: '6 × 1 mm' } },
      ],
      source: 'invented',
    },
  } as unknown as SheetIssue;
  const said = (units: UnitSystem) => Object.fromEntries(linesOf(issue, { groups: [] } as unknown as SheetForm, units));

  // 0.72 / 25.4 = 0.0283; 92 / 25.4 = 3.622; 4 N·m / 1.355818 = 2.95 lbf·ft (NIST SP 811, appendix B).
  it('is in the units of who reads it, parts and torques too', () => {
    expect(said('inch')).toMatchObject({
      'Main jet': '0.0283 ± 0.0004 in',
      'tank gasket': '1 of it, outer 3.622 in',
      'O-ring': '2 of it, size 6 × 1 mm',
      'bowl nut': '3.0 lbf·ft',
    });
    expect(said('metric')).toMatchObject({ 'tank gasket': '1 of it, outer 92 mm', 'bowl nut': '4.0 N·m' });
  });
});
