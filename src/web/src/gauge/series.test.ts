import { expect, it } from 'vitest';
import { seriesOf } from './series';

it('takes the last number of each line of a gauge’s series, without its heading', () => {
  expect(seriesOf('time;pressure\n0;12.5\r\n0.5; 14\n\n1.0\t15.25\n')).toEqual({
    pressures: [12.5, 14, 15.25],
    times: [0, 0.5, 1],
  });
  expect(seriesOf('101\n102\n')).toEqual({ pressures: [101, 102], times: null });
  expect(seriesOf('0.0,88.1\n0.1,89').times).toEqual([0, 0.1]);
  // A spreadsheet with decimal commas.
  expect(seriesOf('0,5;88,1\n1,0;89,25')).toEqual({ pressures: [88.1, 89.25], times: [0.5, 1] });
});

it('takes no times that do not go on', () => {
  expect(seriesOf('0;12\n0;13\n1;14').times).toBeNull();
});
