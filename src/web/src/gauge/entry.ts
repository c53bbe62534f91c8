import type { Line, UnitSystem } from '../api/client';
import { withUnit } from '../units/format';
import { typedGroup, type LineState } from './useLine';

/** Whether a reading says how the thing was found, or how it was left after work. */
export const asFoundOrLeft = (line: Line, entry: string): string =>
  line.asLeft.includes(entry) ? 'as left' : 'as found';

/** The standing reading as it was typed, with units where its reader would misread it without. */
export function standingTyped(
  line: Line,
  reader: UnitSystem,
): { values: Record<string, string>; rows: Record<string, string>[] } {
  const typed = line.standing?.typed;
  if (!typed) return { values: {}, rows: [] };
  const fields = [...line.form.groups.flatMap((g) => g.fields), ...(line.form.rows?.columns ?? [])];
  const read = (values: Record<string, string>): Record<string, string> =>
    Object.fromEntries(
      Object.entries(values).map(([name, text]) => {
        const field = fields.find((f) => f.name === name);
        return [name, field ? withUnit(text, field.dimension, typed.units, reader) : text];
      }),
    );
  return { values: read(typed.values), rows: typed.rows.map(read) };
}

/**
 * The way of measuring that is in use: that of what is being typed, else the one chosen for the section, else that of
 * the standing reading, else the usual one.
 */
export function groupOf(
  state: LineState,
  line: Line,
  way: string | undefined,
): Line['form']['groups'][number] | undefined {
  const { groups } = line.form;
  const standing = line.standing?.typed.values;
  return (
    typedGroup(line, state.draft) ??
    groups.find((g) => g.name === way) ??
    groups.find((g) => g.fields.some((f) => !f.detail && f.name !== 'openHoles' && standing?.[f.name])) ??
    groups[0]
  );
}

/** What the boxes of a line need. */
export interface EntryProps {
  state: LineState;
  line: Line;
  /** The way of measuring chosen for the section. */
  way: string | undefined;
  disabled: boolean;
  onEnter: (from: HTMLElement) => void;
  describedBy?: string | undefined;
}
