import { api, ask, type UnitSystem } from '../api/client';
import { inBase } from '../units/format';

/** From this many pressures on what is pasted is a series to be looked through, not pops that were read off. */
export const SERIES = 8;

/** The last number of each line: pressures alone, or after their times. Lines without one, such as a heading, are left out. */
export const seriesOf = (text: string): number[] =>
  text
    .split(/\r?\n/)
    .map((line) => /(-?\d+(?:\.\d+)?)\s*$/.exec(line.trim())?.[1])
    .filter((number) => number !== undefined)
    .map(Number);

/** The pops in a gauge's series, as rows to be looked at and recorded. Numbers are in the reader's own units. */
export async function popsIn(text: string, units: UnitSystem): Promise<Record<string, string>[]> {
  const pressuresKPa = seriesOf(text).map((number) => inBase('pressure', number, units));
  const { pops } = await ask(api.POST('/api/compute/pop-off', { body: { pressuresKPa } }));
  return pops.map(({ popKPa, reseatKPa }) => ({
    opened: `${popKPa.toFixed(1)} kPa`,
    shut: `${reseatKPa.toFixed(1)} kPa`,
  }));
}
