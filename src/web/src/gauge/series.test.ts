import { expect, it } from 'vitest';
import { seriesOf } from './series';

it('takes the last number of each line of a gauge’s series, without its heading', () => {
  expect(seriesOf('time;pressure\n0;12.5\r\n0.5; 14\n\n1.0\t15.25\n')).toEqual([12.5, 14, 15.25]);
  expect(seriesOf('101\n102\n')).toEqual([101, 102]);
  expect(seriesOf('0.0,88.1\n0.1,89')).toEqual([88.1, 89]);
});
