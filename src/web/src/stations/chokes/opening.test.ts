import { expect, it } from 'vitest';
import { columnsOf, openingAt, secondsOf } from './opening';

it('turns the plate evenly between what was seen', () => {
  const times = secondsOf({ begins: '40', half: '50', open: '70' });
  expect([0, 40, 45, 50, 60, 70, 500].map((at) => openingAt(times, at))).toEqual([0, 0, 0.25, 0.5, 0.75, 1, 1]);
});

it('stays shut while nothing was seen', () => {
  expect(openingAt(secondsOf({ open: '' }), Infinity)).toBe(0);
  expect(secondsOf({ open: '2,4 s' }).open).toBe(2.4);
});

it('reads two or three columns of a file', () => {
  expect(columnsOf('s;deg;rpm\n0;80;3000\n0.5;79.5;3010\n')).toEqual({
    timesS: [0, 0.5],
    anglesDeg: [80, 79.5],
    speedsRpm: [3000, 3010],
  });
  expect(columnsOf('0,80\n1,79')?.speedsRpm).toBeNull();
  expect(columnsOf('nothing here\n5')).toBeNull();
});
