import type { Line, TypedReading, UnitSystem } from '../api/client';
import type { Draft } from '../outbox/drafts';
import { withUnit } from '../units/format';
import type { LineState } from './useLine';

/** A column whose suggested value alone is not something typed, such as the angle of a height. */
const isSuggested = (line: Line, column: string): boolean =>
  line.form.rows?.suggested.some((row) => column in row) ?? false;

/** Whether nothing has been typed: neither a value, nor one of the reading that stands taken out. */
export const isEmpty = (draft: Draft, line: Line): boolean =>
  Object.entries(draft.values).every(
    ([name, text]) => text.trim() === '' && (draft.alone || !line.standing?.typed.values[name]),
  ) && draft.rows.every((row) => Object.entries(row).every(([name, v]) => v.trim() === '' || isSuggested(line, name)));

/** The way of measuring that what is typed belongs to: the one it was typed for, else the one with all its boxes. */
export const typedGroup = (line: Line, draft: Draft): Line['form']['groups'][number] | undefined => {
  const names = Object.keys(draft.values);
  return (
    line.form.groups.find((g) => g.name === draft.group) ??
    (names.length > 0
      ? line.form.groups.find((g) => names.every((name) => g.fields.some((f) => f.name === name)))
      : undefined)
  );
};

/**
 * What stands in the boxes of a line: what is typed and, where nothing was typed over it, the reading that stands. It is
 * what is judged and recorded: changing one half keeps the other.
 */
export function inBoxes(line: Line, draft: Draft, units: UnitSystem): TypedReading {
  const standing = draft.alone ? { values: {}, rows: [] } : standingTyped(line, units);
  const group = typedGroup(line, draft) ?? line.form.groups[0];
  const names = new Set(group?.fields.map((f) => f.name));
  const values = Object.fromEntries(
    Object.entries({ ...standing.values, ...draft.values }).filter(
      ([name, text]) => names.has(name) && text.trim() !== '',
    ),
  );
  const rows = (draft.rows.length > 0 ? draft.rows : standing.rows).filter((row) =>
    Object.entries(row).some(([name, v]) => v.trim() !== '' && !isSuggested(line, name)),
  );
  return { units, values, rows };
}

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
