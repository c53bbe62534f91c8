import { api, ask, type UnitSystem } from '../api/client';

/** From this many pressures on what is pasted is a series to be looked through, not pops that were read off. */
export const SERIES = 8;
const KPA_PER_PSI = 6.894757;

/** The last number of each line: pressures alone, or after their times. Lines without one, such as a heading, are left out. */
export const seriesOf = (text: string): number[] =>
  text
    .split(/\r?\n/)
    .map((line) => /(-?\d+(?:\.\d+)?)\s*$/.exec(line.trim())?.[1])
    .filter((number) => number !== undefined)
    .map(Number);

/** The step of a series: the least difference that is there between two of its numbers. */
export function stepOf(series: readonly number[]): number {
  const sorted = [...new Set(series)].sort((a, b) => a - b);
  const steps = sorted.slice(1).map((value, i) => value - (sorted[i] ?? value));
  return Math.max(Math.min(...steps, 1), 0.001);
}

/** The pops in a gauge's series, as rows to be looked at and recorded. Numbers are in the reader's own units. */
export async function popsIn(text: string, units: UnitSystem): Promise<Record<string, string>[]> {
  const factor = units === 'inch' ? KPA_PER_PSI : 1;
  const pressuresKPa = seriesOf(text).map((number) => Math.max(0, number * factor));
  if (pressuresKPa.length < 2) return [];
  const { pops } = await ask(
    api.POST('/api/compute/pop-off', { body: { pressuresKPa, gaugeResolutionKPa: stepOf(pressuresKPa) } }),
  );
  return pops.map(({ popKPa, reseatKPa }) => ({
    opened: `${popKPa.toFixed(1)} kPa`,
    shut: `${reseatKPa.toFixed(1)} kPa`,
  }));
}
