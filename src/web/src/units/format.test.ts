import { describe, expect, it } from 'vitest';
import { day, feature, figure, money, percent, quantity, say, temperature, withUnit } from './format';

describe('numbers for people', () => {
  it('writes a bore in the units of its reader', () => {
    expect(quantity({ dimension: 'length', value: 0.3429, label: null }, 'metric')).toBe('0.343 mm');
    expect(quantity({ dimension: 'length', value: 0.3429, label: null }, 'inch')).toBe('0.0135 in');
  });

  it('keeps the digits a gauge has and no more', () => {
    expect(figure('length', 0.6, 'metric')).toBe('0.60');
    expect(figure('length', 14, 'metric')).toBe('14.0');
    expect(figure('pressure', 48, 'metric')).toBe('48');
    expect(figure('pressure', 48, 'inch')).toBe('6.96');
    expect(figure('mass', -0.001, 'metric')).toBe('0.0');
  });

  // Sources: NIST SP 811, appendix B (1 in = 25.4 mm, 1 psi = 6.894757 kPa, 1 oz = 28.34952 g, °F = 1.8 °C + 32); by hand.
  it.each([
    ['length', 25.4, 'inch', '1.000 in'],
    ['length', 14, 'inch', '0.551 in'],
    ['pressure', 48, 'inch', '6.96 psi'],
    ['pressure', 69, 'metric', '69 kPa'],
    ['mass', 28.34952, 'inch', '1.00 oz'],
    ['mass', 6.2, 'metric', '6.2 g'],
    ['speed', 3200, 'inch', '3200 rpm'],
    ['minutes', 4, 'inch', '4 min'],
    ['percent', 81.5, 'metric', '82 %'],
  ] as const)('writes %s of %f for a reader of %s units as %s', (dimension, value, units, text) => {
    expect(quantity({ dimension, value, label: null }, units)).toBe(text);
  });

  it('writes a temperature in the reader’s degrees', () => {
    expect(temperature(80, 'metric')).toBe('80 °C');
    expect(temperature(80, 'inch')).toBe('176 °F');
    expect(temperature(0, 'inch')).toBe('32 °F');
  });

  it('calls a named pin by its name', () => {
    expect(quantity({ dimension: 'length', value: 0.3302, label: '#81' }, 'inch')).toBe('#81');
  });

  it('puts numbers in their places', () => {
    const sentence = {
      text: 'Bend the tab {0} toward the needle, of {1}.',
      quantities: [
        { dimension: 'length' as const, value: 0.4, label: null },
        { dimension: 'percent' as const, value: 81.5, label: null },
      ],
    };
    expect(say(sentence, 'metric')).toBe('Bend the tab 0.40 mm toward the needle, of 82 %.');
  });

  it('says a unit once around a tolerance', () => {
    const mm = (value: number) => ({ dimension: 'length' as const, value, label: null });
    expect(say({ text: '{0} ± {1}, even within {2}', quantities: [mm(14), mm(0.5), mm(0.4)] }, 'metric')).toBe(
      '14.0 ± 0.5 mm, even within 0.40 mm',
    );
  });

  it('ends a size and its tolerance at the same digit', () => {
    const window = (mm: number, off: number, units: 'metric' | 'inch') =>
      say(
        { text: '{0} ± {1}', quantities: [mm, off].map((value) => ({ dimension: 'length', value, label: null })) },
        units,
      );
    expect(window(13, 0.5, 'inch')).toBe('0.512 ± 0.020 in');
    // A thousandth would be a fifth too little: the size gets the digit.
    expect(window(13, 0.03, 'inch')).toBe('0.5118 ± 0.0012 in');
    expect(window(0.72, 0.01, 'inch')).toBe('0.0283 ± 0.0004 in');
    expect(window(0.72, 0.01, 'metric')).toBe('0.72 ± 0.01 mm');
    expect(feature('13 ± 0.5 mm', 'inch')).toBe('0.512 ± 0.020 in');
  });

  it('says a day the way people do', () => {
    expect(day('2026-11-24', '2026-11-24')).toBe('today');
    expect(day('2026-11-25', '2026-11-24')).toBe('tomorrow');
    expect(day('2026-11-27', '2026-11-24')).toBe('Friday');
    expect(day('2026-11-20', '2026-11-24')).toBe('Fri 20 Nov');
  });

  it('never rounds a small share down to nothing', () => {
    expect(percent(0.004)).toBe('under 1 %');
    expect(percent(0)).toBe('0 %');
    expect(percent(0.0004, 1)).toBe('under 0.1 %');
    expect(percent(0.556)).toBe('56 %');
  });

  it('gives a bare number its unit only for a reader of other units', () => {
    expect(withUnit('0.71', 'length', 'metric', 'inch')).toBe('0.71 mm');
    expect(withUnit('0.71', 'length', 'metric', 'metric')).toBe('0.71');
    expect(withUnit('#70', 'length', 'metric', 'inch')).toBe('#70');
    expect(withUnit('3400', 'speed', 'metric', 'inch')).toBe('3400');
  });

  it('writes money in its currency', () => {
    expect(money(14.5, 'GBP')).toBe('£14.50');
  });
});
