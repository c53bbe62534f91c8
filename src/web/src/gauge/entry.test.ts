import { describe, expect, it } from 'vitest';
import type { Line } from '../api/client';
import { groupOf, standingTyped } from './entry';
import type { LineState } from './useLine';

const field = (name: string, detail = false) => ({
  name,
  label: name,
  kind: 'measure' as const,
  dimension: 'length' as const,
  optional: true,
  detail,
  choices: [],
});
const line = (values?: Record<string, string>): Line =>
  ({
    key: 'gauging/main-jet',
    form: {
      groups: [
        { name: 'pins', label: 'Pins', fields: [field('go'), field('noGo')] },
        { name: 'direct', label: 'Direct bore', fields: [field('bore'), field('resolution', true)] },
      ],
      rows: null,
    },
    standing: values ? { typed: { units: 'metric', values, rows: [] } } : null,
  }) as unknown as Line;
const state = (group: string | null): LineState =>
  ({ draft: { group, values: {}, rows: [], correcting: null } }) as unknown as LineState;

describe('the way of measuring', () => {
  it('is the usual one when nothing else is said', () => {
    expect(groupOf(state(null), line(), undefined)?.name).toBe('pins');
  });

  it('is that of the standing reading, of the section before it, and of what is being typed before either', () => {
    const read = line({ bore: '0.72' });
    expect(groupOf(state(null), read, undefined)?.name).toBe('direct');
    expect(groupOf(state(null), read, 'pins')?.name).toBe('pins');
    expect(groupOf(state('direct'), read, 'pins')?.name).toBe('direct');
  });
});

describe('a standing reading in the boxes', () => {
  it('is as it was typed for who typed it', () => {
    expect(standingTyped(line({ go: '0.71', noGo: '#70' }), 'metric').values).toEqual({ go: '0.71', noGo: '#70' });
  });

  it('gets its unit for a reader who would take a bare number for inches', () => {
    expect(standingTyped(line({ go: '0.71', noGo: '#70' }), 'inch').values).toEqual({ go: '0.71 mm', noGo: '#70' });
  });
});
