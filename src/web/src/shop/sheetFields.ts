import type { SheetForm, SheetGroup, SheetIssue, TypedSheet, UnitSystem } from '../api/client';
import { features, figure, plusMinus, sign, torque } from '../units/format';

/** A row of a list on the sheet, as it is typed; from says which of the sheet it is written from it is. */
export interface DraftRow {
  from?: string;
  [column: string]: string | undefined;
}

/** A sheet as it is typed: everything is text until Core has read it. */
export interface SheetDraft {
  code: string;
  maker: string;
  family: TypedSheet['family'];
  engine: '' | NonNullable<TypedSheet['engine']>;
  choke: '' | NonNullable<TypedSheet['choke']>;
  stamped: string;
  source: string;
  why: string;
  leverDatum: TypedSheet['leverDatum'];
  numbers: Record<string, string>;
  jets: DraftRow[];
  rows: DraftRow[];
  /** The parts a kit should bring, one a line. */
  needs: string;
  plates: string;
  /** Turns and torques, a part a line. */
  screws: string;
  element: '' | NonNullable<TypedSheet['element']>;
  bodyShape: NonNullable<TypedSheet['bodyShape']>;
  floatShape: string;
}

/** What moves a heat choke. */
export const elementWord = { wax: 'a wax pellet', bimetal: 'a coil of two metals' } as const;

export const emptyDraft: SheetDraft = {
  code: '',
  maker: '',
  family: 'floatBowl',
  engine: '',
  choke: '',
  stamped: '',
  source: '',
  why: '',
  leverDatum: 'gaugeLeg',
  numbers: {},
  jets: [{ label: 'Main jet', bore: '', tolerance: '' }],
  rows: [],
  needs: '',
  plates: '',
  screws: '',
  element: '',
  bodyShape: 'upright',
  floatShape: 'none',
};

/** The groups a carburetor of this kind has. */
export const groupsOf = (form: SheetForm, { family, choke }: Pick<SheetDraft, 'family' | 'choke'>): SheetGroup[] =>
  form.groups.filter(
    (group) =>
      (group.families.length === 0 || group.families.includes(family)) &&
      (group.chokes.length === 0 || (choke !== '' && group.chokes.includes(choke))),
  );

/** A sheet on file, to be typed over. */
export function draftOf({ sheet, numbers, needs, screws }: SheetIssue, form: SheetForm, units: UnitSystem): SheetDraft {
  const length = (mm: number): string => figure('length', mm, units);
  return {
    code: sheet.code,
    maker: sheet.maker,
    family: sheet.family,
    engine: sheet.engine ?? '',
    choke: sheet.choke ?? '',
    stamped: sheet.stampedNumbers.join(', '),
    source: sheet.source,
    why: '',
    leverDatum: sheet.lever?.datum ?? 'gaugeLeg',
    needs,
    plates: (sheet.plates ?? []).join(', '),
    screws,
    element: sheet.opens?.element ?? '',
    bodyShape: sheet.float?.body?.shape ?? 'upright',
    floatShape: sheet.traits?.floatShape ?? 'none',
    numbers: Object.fromEntries(
      form.groups.flatMap(({ at, boxes }) =>
        boxes.flatMap(({ name, dimension }) => {
          const value = numbers[`${at}.${name}`];
          return value === undefined ? [] : [[`${at}.${name}`, figure(dimension, value, units)]];
        }),
      ),
    ),
    jets: sheet.jets.map(({ key, label, boreMm, toleranceMm }) => ({
      from: key,
      label,
      bore: length(boreMm),
      tolerance: length(toleranceMm),
    })),
    rows: sheet.emulsionRows.map(({ row, holes, boreMm, toleranceMm, heightMm }) => ({
      from: String(row),
      holes: String(holes),
      bore: length(boreMm),
      tolerance: length(toleranceMm),
      height: length(heightMm),
    })),
  };
}

/** What Core is given to read: of what is on file already only what was touched, so that the rest stays as exact as it is. */
export function typedOf(draft: SheetDraft, first: SheetDraft, written: boolean, units: UnitSystem): TypedSheet {
  const touched = (rows: DraftRow[], row: DraftRow, column: string): string | null => {
    const before = written ? rows.find((one) => one.from !== undefined && one.from === row.from) : undefined;
    return before && before[column] === row[column] ? null : (row[column] ?? '');
  };
  return {
    units,
    code: draft.code,
    maker: draft.maker,
    family: draft.family,
    engine: draft.engine || null,
    choke: draft.choke || null,
    stamped: draft.stamped,
    source: draft.source,
    leverDatum: draft.leverDatum,
    plates: draft.plates,
    screws: draft.screws,
    element: draft.element || null,
    bodyShape: draft.bodyShape,
    floatShape: draft.floatShape,
    numbers: Object.fromEntries(
      Object.entries(draft.numbers).filter(([box, text]) => !written || text !== (first.numbers[box] ?? '')),
    ),
    jets: draft.jets.map((jet) => ({
      key: jet.from ?? null,
      label: touched(first.jets, jet, 'label'),
      bore: touched(first.jets, jet, 'bore'),
      tolerance: touched(first.jets, jet, 'tolerance'),
    })),
    rows: draft.rows.map((row) => ({
      row: row.from === undefined ? null : Number(row.from),
      holes: touched(first.rows, row, 'holes'),
      bore: touched(first.rows, row, 'bore'),
      tolerance: touched(first.rows, row, 'tolerance'),
      height: touched(first.rows, row, 'height'),
    })),
  };
}

/** Everything a sheet says, a line a thing, to be read or laid beside another. */
export function linesOf({ sheet, numbers }: SheetIssue, form: SheetForm, units: UnitSystem): [string, string][] {
  const mm = sign('length', units);
  return [
    ['Maker', sheet.maker],
    ['Stamped', sheet.stampedNumbers.join(', ')],
    ...(sheet.plates?.length ? [['Engine plates', sheet.plates.join(', ')] as [string, string]] : []),
    ...(sheet.traits ? [['Float', sheet.traits.floatShape] as [string, string]] : []),
    ...(sheet.opens?.element ? [['What moves the choke', elementWord[sheet.opens.element]] as [string, string]] : []),
    ...sheet.jets.map((jet): [string, string] => [
      jet.label,
      `${plusMinus('length', jet.boreMm, jet.toleranceMm, units)} ${mm}`,
    ]),
    ...sheet.emulsionRows.map((row): [string, string] => [
      `Emulsion row ${row.row}`,
      `${row.holes} × ${plusMinus('length', row.boreMm, row.toleranceMm, units)} ${mm}`,
    ]),
    ...form.groups.flatMap(({ at, title, boxes }) =>
      boxes.flatMap(({ name, label, dimension }): [string, string][] => {
        const value = numbers[`${at}.${name}`];
        return value === undefined
          ? []
          : [[`${title}, ${label}`, `${figure(dimension, value, units)} ${sign(dimension, units)}`.trim()]];
      }),
    ),
    ...(sheet.screws ?? []).map((screw): [string, string] => [
      screw.part.replaceAll('-', ' '),
      [
        screw.turnsOut == null ? '' : `${screw.turnsOut} turns out`,
        screw.torqueNm == null ? '' : torque(screw.torqueNm, units),
      ]
        .filter(Boolean)
        .join(', '),
    ]),
    ...sheet.needs.map((need): [string, string] => [
      need.part,
      [`${need.quantity} of it`, features(need.features, units)].filter(Boolean).join(', '),
    ]),
    ['Source', sheet.source],
  ];
}
