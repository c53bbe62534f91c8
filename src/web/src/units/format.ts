import type { Dimension, Quantity, Sentence, UnitSystem } from '../api/client';

interface Unit {
  sign: string;
  /** Base units in one of these. */
  size: number;
  digits: (value: number) => [least: number, most: number];
  /** What zero base units are in it, where that is not zero. */
  zero?: number;
}

const fixed = (least: number, most: number) => (): [number, number] => [least, most];

const metric: Record<Dimension, Unit> = {
  length: { sign: 'mm', size: 1, digits: (v) => (Math.abs(v) < 3 ? [2, 3] : [1, 2]) },
  pressure: { sign: 'kPa', size: 1, digits: fixed(0, 1) },
  mass: { sign: 'g', size: 1, digits: fixed(1, 2) },
  speed: { sign: 'rpm', size: 1, digits: fixed(0, 0) },
  time: { sign: 's', size: 1, digits: fixed(0, 1) },
  minutes: { sign: 'min', size: 1, digits: fixed(0, 1) },
  angle: { sign: '°', size: 1, digits: fixed(0, 0) },
  temperatureChange: { sign: '°C', size: 1, digits: fixed(0, 1) },
  temperature: { sign: '°C', size: 1, digits: fixed(0, 1) },
  volume: { sign: 'mL', size: 1, digits: fixed(0, 1) },
  volumeFlow: { sign: 'mL/min', size: 1, digits: fixed(0, 2) },
  percent: { sign: '%', size: 1, digits: fixed(0, 0) },
  count: { sign: '', size: 1, digits: fixed(0, 0) },
};

const inch: Record<Dimension, Unit> = {
  ...metric,
  length: { sign: 'in', size: 25.4, digits: (v) => (Math.abs(v) < 0.25 ? [4, 4] : [3, 3]) },
  pressure: { sign: 'psi', size: 6.894757293168361, digits: fixed(1, 2) },
  mass: { sign: 'oz', size: 28.349523125, digits: fixed(2, 3) },
  temperatureChange: { sign: '°F', size: 5 / 9, digits: fixed(0, 1) },
  temperature: { sign: '°F', size: 5 / 9, digits: fixed(0, 1), zero: 32 },
};

const unitOf = (dimension: Dimension, units: UnitSystem): Unit => (units === 'inch' ? inch : metric)[dimension];

/** The unit's sign in the reader's units. */
export const sign = (dimension: Dimension, units: UnitSystem): string => unitOf(dimension, units).sign;

/** A number in the reader's units, in base units. */
export const inBase = (dimension: Dimension, value: number, units: UnitSystem): number =>
  (value - (unitOf(dimension, units).zero ?? 0)) * unitOf(dimension, units).size;

/** A number in base units, written in the reader's units, without its unit. */
export function figure(dimension: Dimension, value: number, units: UnitSystem): string {
  const unit = unitOf(dimension, units);
  const shown = value / unit.size + (unit.zero ?? 0);
  const [minimumFractionDigits, maximumFractionDigits] = unit.digits(shown);
  const text = new Intl.NumberFormat('en-GB', {
    minimumFractionDigits,
    maximumFractionDigits,
    useGrouping: false,
  }).format(shown);
  return /^-0(\.0+)?$/.test(text) ? text.slice(1) : text;
}

const besides = (text: string, s: string): string => (s === '' || s === '°' ? text + s : `${text} ${s}`);

/** A number with its unit, in the reader's units; a thing with a name of its own is called by it. */
export function quantity(q: Quantity, units: UnitSystem): string {
  const s = sign(q.dimension, units);
  const whole = besides(figure(q.dimension, q.value, units), s);
  // The number of a drill alone says nothing to whoever works in millimetres.
  return q.label?.startsWith('#') && units === 'metric' ? `${whole} (${q.label})` : q.label || whole;
}

const decimals = (text: string): number => text.split('.')[1]?.length ?? 0;

/**
 * A size and what it may be off, in base units, written to the same last digit without the unit: the tolerance is rounded to
 * where the size ends when that changes it by less than a twentieth, otherwise the size gets more digits.
 */
export function plusMinus(dimension: Dimension, value: number, off: number, units: UnitSystem): string {
  const { size } = unitOf(dimension, units);
  const [plain, exact] = [figure(dimension, value, units), off / size];
  const places = decimals(plain);
  if (Math.abs(Number(exact.toFixed(places)) - exact) <= exact / 20) return `${plain} ± ${exact.toFixed(places)}`;
  const written = figure(dimension, off, units);
  return `${(value / size).toFixed(decimals(written))} ± ${written}`;
}

/** A sentence with its numbers in their places; a unit said twice around a “±” or “to” is said once. */
export const say = (sentence: Sentence, units: UnitSystem): string =>
  sentence.text
    .replace(/\{(\d+)\} ± \{(\d+)\}/g, (places, at: string, by: string) => {
      const [q, off] = [sentence.quantities[Number(at)], sentence.quantities[Number(by)]];
      return q && off && q.dimension === off.dimension && q.dimension !== 'temperature' && !q.label && !off.label
        ? besides(plusMinus(q.dimension, q.value, off.value, units), sign(q.dimension, units))
        : places;
    })
    .replace(/\{(\d+)\}/g, (place, index: string) => {
      const q = sentence.quantities[Number(index)];
      return q ? quantity(q, units) : place;
    })
    .replace(/([\d.]+) (\S+) (±|to) ([\d.]+) \2(?=[\s,.;:]|$)/g, '$1 $3 $4 $2');

const dayFormat = new Intl.DateTimeFormat('en-GB', { weekday: 'short', day: 'numeric', month: 'short' });
const timeFormat = new Intl.DateTimeFormat('en-GB', {
  weekday: 'short',
  day: 'numeric',
  month: 'short',
  hour: '2-digit',
  minute: '2-digit',
});

/** A day as yyyy-mm-dd, in words as near as possible: today, tomorrow, Thursday, 3 Dec. */
export function day(iso: string, today: string): string {
  const days = daysBetween(today, iso);
  if (days === 0) return 'today';
  if (days === 1) return 'tomorrow';
  if (days === -1) return 'yesterday';
  if (days > 1 && days < 7)
    return new Intl.DateTimeFormat('en-GB', { weekday: 'long' }).format(new Date(`${iso}T12:00`));
  return dayFormat.format(new Date(`${iso}T12:00`));
}

export const daysBetween = (from: string, to: string): number =>
  Math.round((Date.parse(`${to}T12:00Z`) - Date.parse(`${from}T12:00Z`)) / 86_400_000);

export const moment = (iso: string): string => timeFormat.format(new Date(iso));

export const money = (amount: number, currency: string): string =>
  new Intl.NumberFormat('en-GB', { style: 'currency', currency }).format(amount);

/** Today on this device, as yyyy-mm-dd. */
export const localToday = (): string => {
  const now = new Date();
  return `${now.getFullYear()}-${String(now.getMonth() + 1).padStart(2, '0')}-${String(now.getDate()).padStart(2, '0')}`;
};

/** Text typed in one person's units as another person has to read it: a bare number gets its unit. */
export const withUnit = (text: string, dimension: Dimension, typedIn: UnitSystem, reader: UnitSystem): string =>
  typedIn === reader || !/^[\d.,]+$/.test(text) || sign(dimension, typedIn) === sign(dimension, reader)
    ? text
    : `${text} ${sign(dimension, typedIn)}`;

/** A share from 0 to 1 as a percentage; very small ones say so. */
export const percent = (share: number, digits = 0): string => {
  const value = 100 * share;
  const least = 10 ** -digits;
  return value > 0 && value < least ? `under ${least} %` : `${value.toFixed(digits)} %`;
};

/** A feature in its written form, its lengths in the reader's units; rings keep their size, which is a name. */
export const feature = (text: string, units: UnitSystem): string =>
  units === 'metric' || text.includes('×')
    ? text
    : text.replace(/([\d.]+)(?: ± ([\d.]+))? mm/g, (_, mm: string, off?: string) => {
        const size = off ? plusMinus('length', Number(mm), Number(off), units) : figure('length', Number(mm), units);
        return `${size} in`;
      });

/** The features of a part in one line; a word that says its own feature stands alone. */
export const features = (all: Record<string, string>, units: UnitSystem): string =>
  Object.entries(all)
    .map(([name, value]) => (value.includes(name) ? value : `${name} ${feature(value, units)}`))
    .join(', ');

const eighthSigns = ['', '⅛', '¼', '⅜', '½', '⅝', '¾', '⅞'];

/** Eighths of a turn as the bench writes them: 1¼. */
export const turns = (eighths: number): string =>
  eighths === 0 ? '0' : `${eighths >= 8 ? Math.floor(eighths / 8) : ''}${eighthSigns[eighths % 8] ?? ''}`;

/** A length typed as a bare number in the reader's units, in millimetres; null when there is none. */
export const toMm = (typed: string, units: UnitSystem): number | null => {
  const number = Number(typed.trim().replace(',', '.'));
  return typed.trim() === '' || Number.isNaN(number) ? null : number * unitOf('length', units).size;
};

/** A torque in the reader's units. */
export const torque = (nm: number, units: UnitSystem): string =>
  units === 'inch' ? `${(nm / 1.355817948).toFixed(1)} lbf·ft` : `${nm.toFixed(1)} N·m`;

/** A temperature in the reader's units. */
export const temperature = (celsius: number, units: UnitSystem): string =>
  units === 'inch' ? `${Math.round(celsius * 1.8 + 32)} °F` : `${Math.round(celsius)} °C`;
