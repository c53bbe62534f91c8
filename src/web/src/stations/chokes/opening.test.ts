import { expect, it } from 'vitest';
import { openingAt, secondsOf } from './opening';

it('turns the plate evenly between what was seen', () => {
  const times = secondsOf({ begins: '40', half: '50', open: '70' });
  expect([0, 40, 45, 50, 60, 70, 500].map((at) => openingAt(times, at))).toEqual([0, 0, 0.25, 0.5, 0.75, 1, 1]);
});

it('stays shut while nothing was seen', () => {
  expect(openingAt(secondsOf({ open: '' }), Infinity)).toBe(0);
  expect(secondsOf({ open: '2,4 s' }).open).toBe(2.4);
});
