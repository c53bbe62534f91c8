import { api, ask, type UnitSystem } from '../api/client';
import { inBase } from '../units/format';

/** From this many pressures on what is pasted is a series to be looked through, not readings that were read off. */
export const SERIES = 8;

/** What a gauge wrote down, in the reader's own units; without times where it wrote none. */
export interface Series {
  pressures: number[];
  times: number[] | null;
}

/** The numbers of each line of an instrument's file; lines without any, such as a heading, are left out.
 * Between semicolons or tabs a comma is a decimal one. */
export const numbersOf = (text: string): number[][] =>
  text
    .split(/\r?\n/)
    .map((line) => (/[;\t]/.test(line) ? line.replaceAll(',', '.') : line))
    .map((line) => [...line.matchAll(/-?\d+(?:\.\d+)?/g)].map(([number]) => Number(number)))
    .filter((numbers) => numbers.length > 0);

/** Pressures alone, or the last number of each line after its time. Lines without one, such as a heading, are left out. */
export function seriesOf(text: string): Series {
  const rows = numbersOf(text);
  const pressures = rows.map((numbers) => numbers.at(-1) ?? 0);
  const times = rows.map((numbers) => numbers[0] ?? 0);
  const timed =
    rows.every((numbers) => numbers.length >= 2) && times.every((time, i) => i === 0 || time > (times[i - 1] ?? 0));
  return { pressures, times: timed ? times : null };
}

/** What the gauge on the bench showed last. */
export async function fromGauge(): Promise<{ pressuresKPa: number[]; timesS: number[] }> {
  const { timesS, values } = await ask(api.GET('/api/instruments/pressure-gauge'));
  return { pressuresKPa: values, timesS };
}

/** The same of a file or what was pasted. */
export function fromText(text: string, units: UnitSystem): { pressuresKPa: number[]; timesS: number[] | null } {
  const { pressures, times } = seriesOf(text);
  return { pressuresKPa: pressures.map((number) => inBase('pressure', number, units)), timesS: times };
}

/** What is in a series, as rows to be looked at and recorded: its pops, or what stood after the last of them. */
export async function rowsIn(
  part: 'pops' | 'hold',
  series: { pressuresKPa: number[]; timesS: number[] | null },
): Promise<Record<string, string>[]> {
  const { pops, hold } = await ask(api.POST('/api/compute/pop-off', { body: series }));
  return part === 'pops'
    ? pops.map(({ popKPa, reseatKPa }) => ({
        opened: `${popKPa.toFixed(1)} kPa`,
        shut: `${reseatKPa.toFixed(1)} kPa`,
      }))
    : hold.map(({ timeS, pressureKPa }) => ({
        time: String(Number(timeS.toFixed(1))),
        pressure: `${pressureKPa.toFixed(1)} kPa`,
      }));
}
