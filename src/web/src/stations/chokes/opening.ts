import { api, ask, type StartSeries } from '../../api/client';
import { numbersOf } from '../../gauge/series';

/** Seconds of the things that happened in a start; null where nothing was noted. */
export interface StartTimes {
  begins: number | null;
  half: number | null;
  open: number | null;
  faltered: number | null;
}

const seconds = (typed: string | undefined): number | null => {
  const number = Number.parseFloat((typed ?? '').replace(',', '.'));
  return Number.isFinite(number) ? number : null;
};

export const secondsOf = (values: Partial<Record<string, string>>): StartTimes => ({
  begins: seconds(values.begins),
  half: seconds(values.half),
  open: seconds(values.open),
  faltered: seconds(values.faltered),
});

/** How far the plate stood open at a time, 0 shut to 1 open: evenly from one thing that was seen to the next. */
export function openingAt(times: StartTimes, at: number): number {
  const marks: [number, number][] = [];
  if (times.begins !== null) marks.push([times.begins, 0]);
  if (times.half !== null) marks.push([times.half, 0.5]);
  if (times.open !== null) marks.push([times.open, 1]);
  let before: [number, number] = [0, 0];
  for (const mark of marks) {
    if (at < mark[0])
      return before[1] + ((mark[1] - before[1]) * Math.max(0, at - before[0])) / Math.max(1e-9, mark[0] - before[0]);
    before = mark;
  }
  return before[1];
}

/** What the angle sensor and the tachometer showed last. */
export const fromInstruments = (): Promise<StartSeries> => ask(api.GET('/api/instruments/choke-start'));

/** Columns of time, plate angle and, where it was read, speed; null when there are fewer. */
export function columnsOf(file: string): StartSeries | null {
  const rows = numbersOf(file);
  const wide = Math.min(...rows.map((row) => row.length));
  if (rows.length === 0 || wide < 2) return null;
  const column = (at: number): number[] => rows.map((row) => row[at] ?? 0);
  return { timesS: column(0), anglesDeg: column(1), speedsRpm: wide > 2 ? column(2) : null };
}
