import { describe, expect, it } from 'vitest';
import { seriesOf, stepOf } from './series';

describe('a gauge’s series', () => {
  it('is the last number of each line, without its heading', () => {
    expect(seriesOf('time;pressure\n0;12.5\r\n0.5; 14\n\n1.0\t15.25\n')).toEqual([12.5, 14, 15.25]);
    expect(seriesOf('101\n102\n')).toEqual([101, 102]);
    expect(seriesOf('0.0,88.1\n0.1,89')).toEqual([88.1, 89]);
  });

  it('has the step of its nearest two numbers, and 1 at most', () => {
    expect(stepOf([10, 10.5, 12, 12.2])).toBeCloseTo(0.2);
    expect(stepOf([10, 20, 30])).toBe(1);
    expect(stepOf([10])).toBe(1);
  });
});
