import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Plus, X } from 'lucide-react';
import { useDeferredValue, useMemo, type ReactNode } from 'react';
import { useNavigate, useParams, useSearchParams } from 'react-router';
import { v7 as uuidv7 } from 'uuid';
import { api, ask, type SheetForm, type SheetIssue, type Span, type Tray } from '../api/client';
import { useWrite } from '../api/useWrite';
import { useKept } from '../outbox/drafts';
import { useDecide } from '../shell/useRecord';
import { usePerson, useUnits } from '../session/session';
import { keys } from '../api/keys';
import { useTray } from '../shell/queries';
import { useTitle } from '../shell/title';
import { choices, chokeWord, engineWord, familyWord } from '../shell/words';
import { figure, sign } from '../units/format';
import { Button } from '../ui/button';
import { Card } from '../ui/card';
import { Choice } from '../ui/choice';
import { TextArea, TextField } from '../ui/field';
import { Loading, Notice, Trouble } from '../ui/states';
import { draftOf, elementWord, emptyDraft, groupsOf, typedOf, type DraftRow, type SheetDraft } from './sheetFields';
import { useSheetForm } from './useSheetForm';

/** A spec sheet to be made, copied or corrected. What has been typed stays on this device until it is on file. */
export function SheetFormPage() {
  const { code } = useParams();
  const [query] = useSearchParams();
  const from = code ?? query.get('copy') ?? '';
  const number = Number(query.get('tray') ?? 0);
  const issues = useQuery({
    queryKey: keys.sheet(from),
    queryFn: () => ask(api.GET('/api/sheets/{code}', { params: { path: { code: from } } })),
    enabled: from !== '',
  });
  const tray = useTray(number);
  const form = useSheetForm();
  if (form.isPending || (from !== '' && issues.isPending)) return <Loading what="the sheet" />;
  if (!form.data || (from !== '' && !issues.data))
    return <Trouble error={issues.error ?? form.error} retry={() => void issues.refetch()} />;
  if (number > 0 && !tray.data) return <Loading what="the tray" />;
  return (
    <Form
      key={`${from} ${number}`}
      form={form.data}
      base={issues.data?.[0] ?? null}
      correcting={code !== undefined}
      tray={number > 0 ? (tray.data ?? null) : null}
    />
  );
}

interface Props {
  form: SheetForm;
  /** The issue it is written from, or null. */
  base: SheetIssue | null;
  correcting: boolean;
  tray: Tray | null;
}

function Form({ form, base, correcting, tray }: Props) {
  const units = useUnits();
  const person = usePerson();
  const navigate = useNavigate();
  const queries = useQueryClient();
  const decide = useDecide(tray?.number ?? 0);
  useTitle(correcting ? `Correct ${base?.sheet.code ?? ''}` : 'A new sheet');
  const first = useMemo<SheetDraft>(() => {
    if (base) {
      const written = draftOf(base, form, units);
      return correcting ? written : { ...written, code: '', stamped: '' };
    }
    if (!tray) return emptyDraft;
    const { family, engine, choke, stampedNumber } = tray.facts;
    return {
      ...emptyDraft,
      family,
      engine: engine ?? '',
      choke: choke ?? '',
      stamped: stampedNumber,
      code: stampedNumber.toUpperCase().replace(/[^A-Z0-9-]/g, ''),
      source: 'measured here',
      maker: 'unknown',
    };
  }, [form, base, correcting, tray, units]);
  // Its issue is part of the key: what was typed on an older one is not laid over the newer.
  const about = base
    ? `${correcting ? '' : 'copy-'}${base.sheet.code}-${base.sheet.issue}`
    : `new-${tray?.number ?? ''}`;
  const [kept, keep, clear] = useKept<SheetDraft>(`${person.id}:sheet:${about}`, first);
  // A draft of an earlier version has not every box.
  const draft = { ...first, ...kept };
  const put = (change: Partial<SheetDraft>): void => keep({ ...draft, ...change });
  const from = base ? { code: base.sheet.code, issue: base.sheet.issue } : null;
  const typed = typedOf(draft, first, base !== null, units);
  // Read by Core while it is typed: what is wrong, and the windows.
  const needs = base && draft.needs === first.needs ? null : draft.needs;
  const asked = useDeferredValue(JSON.stringify({ typed, from, needs }));
  const look = useQuery({
    queryKey: keys.sheetLook(asked),
    queryFn: () => ask(api.POST('/api/sheets/look', { body: { typed, from, needs } })),
    placeholderData: (before) => before,
  });
  const save = useWrite(
    async (): Promise<SheetIssue[]> => {
      const body = { typed, from, needs, basedOn: correcting ? (base?.sheet.issue ?? 0) : 0, why: draft.why };
      const code = draft.code.trim().toUpperCase() || '-';
      const saved = await ask(api.PUT('/api/sheets/{code}/typed', { params: { path: { code } }, body }));
      if (tray) {
        // It was made for this tray: the tray goes by it from here on. Where somebody was quicker, it is chosen at Kit.
        const note = { kind: 'sheet' as const, specCode: code, stampedNumber: tray.facts.stampedNumber };
        await decide({ note, version: tray.version, id: uuidv7() });
      }
      return saved;
    },
    {
      changes: [keys.sheets, ['identify'], ...(tray ? [keys.ofTray(tray.number), keys.bench] : [])],
      done: (issues) => {
        clear();
        const now = issues[0]?.sheet.code ?? '';
        queries.setQueryData(keys.sheet(now), issues);
        void navigate(tray ? `/tray/${tray.number}/kit` : `/sheets/${now}`);
      },
    },
  );
  // What was never touched is not wrong yet; a press on the button says the rest.
  const live = (look.data?.problems ?? []).filter(
    ({ field }) =>
      field === 'needs' || field === 'screws' || field === 'plates' || (field.includes('.') && !isEmpty(draft, field)),
  );
  const errors: Record<string, string> = {
    ...Object.fromEntries(live.map(({ field, message }) => [field, message])),
    ...Object.fromEntries(Object.entries(save.problem?.errors ?? {}).map(([field, all]) => [field, all[0] ?? ''])),
  };
  const shownFields = new Set(['code', 'maker', 'source', 'why', 'stampedNumbers', 'needs', 'plates', 'screws']);
  const elsewhere = Object.entries(errors).filter(([field]) => !field.includes('.') && !shownFields.has(field));
  return (
    <form
      className="grid max-w-5xl gap-4 p-3 lg:px-5"
      onSubmit={(event) => {
        event.preventDefault();
        void save.run();
      }}
    >
      <header>
        <h1 className="text-heading leading-tight">
          {correcting
            ? `${base?.sheet.code ?? ''}, a new issue`
            : tray
              ? `A sheet for tray ${tray.number}`
              : 'A new sheet'}
        </h1>
        <p className="text-mute">
          Only what is known: whatever stays empty is not asked for at the bench. Numbers are in{' '}
          {units === 'inch' ? 'in, psi, oz' : 'mm, kPa, g'}.
        </p>
      </header>
      {save.problem && <Notice title={save.problem.title}>{save.problem.detail}</Notice>}
      {elsewhere.length > 0 && (
        <Notice title="Not on file yet.">
          {elsewhere.map(([field, what]) => (
            <p key={field}>{what}</p>
          ))}
        </Notice>
      )}
      <Card label="What it is" title="What it is" className="grid gap-3">
        <div className="grid gap-3 sm:grid-cols-3">
          <TextField
            label="Code"
            hint="Capitals, digits, dashes"
            className="num"
            value={draft.code}
            disabled={correcting}
            problem={errors.code}
            onChange={(event) => put({ code: event.target.value })}
          />
          <TextField
            label="Maker of the carburetor"
            value={draft.maker}
            problem={errors.maker}
            onChange={(event) => put({ maker: event.target.value })}
          />
          <TextField
            label="Stamped numbers"
            hint="One after the other, with commas"
            className="num"
            value={draft.stamped}
            problem={errors.stampedNumbers}
            onChange={(event) => put({ stamped: event.target.value })}
          />
          <TextField
            label="Engine plates"
            hint="Model/specification, with commas"
            className="num"
            value={draft.plates}
            problem={errors.plates}
            onChange={(event) => put({ plates: event.target.value })}
          />
        </div>
        <div className="flex flex-wrap gap-x-6 gap-y-3">
          <Named what="Family">
            <Choice
              label="Family"
              value={draft.family}
              options={choices(familyWord)}
              onChange={(family) => put({ family })}
            />
          </Named>
          <Named what="Engine, if known">
            <Choice
              label="Engine"
              value={draft.engine}
              options={choices(engineWord)}
              onChange={(engine) => put({ engine })}
            />
          </Named>
          <Named what="Choke, if known">
            <Choice
              label="Choke"
              value={draft.choke}
              options={choices(chokeWord)}
              onChange={(choke) => put({ choke })}
            />
          </Named>
        </div>
      </Card>
      <Card label="Jets" title="Jets" className="grid gap-3">
        <Rows
          rows={draft.jets}
          columns={[
            { name: 'label', label: 'jet' },
            { name: 'bore', label: `bore, ${sign('length', units)}`, number: true },
            { name: 'tolerance', label: `either way, ${sign('length', units)}`, number: true },
          ]}
          usual={form.usualJetToleranceMm}
          problem={problemAt(errors, 'jets')}
          windows={windowAt(look.data?.windows, 'jets')}
          more="Another jet"
          onChange={(jets) => put({ jets })}
        />
      </Card>
      {draft.family === 'floatBowl' && (
        <Card label="Emulsion tube" title="Emulsion tube, rows from the top" className="grid gap-3">
          <Rows
            rows={draft.rows}
            columns={[
              { name: 'holes', label: 'holes', number: true },
              { name: 'bore', label: `bore, ${sign('length', units)}`, number: true },
              { name: 'tolerance', label: `either way, ${sign('length', units)}`, number: true },
              { name: 'height', label: `above the jet, ${sign('length', units)}`, number: true },
            ]}
            usual={form.usualRowToleranceMm}
            problem={problemAt(errors, 'emulsionRows')}
            windows={windowAt(look.data?.windows, 'emulsionRows')}
            more="Another row"
            onChange={(rows) => put({ rows })}
          />
        </Card>
      )}
      <Card label="What a kit should bring" title="What a kit should bring" className="grid gap-3">
        <TextArea
          label="Parts, one a line"
          hint="2 O-ring: size=6 × 1 mm, or a name alone when any will do. Kits are matched by them."
          className="num"
          value={draft.needs}
          problem={errors.needs}
          rows={Math.max(2, draft.needs.split('\n').length)}
          onChange={(event) => put({ needs: event.target.value })}
        />
      </Card>
      <Card label="Screws" title="Screws" className="grid gap-3">
        <TextArea
          label="Turns and torques, a part a line"
          hint="idle needle: 1 1/4 turns. bowl: 2 N·m, or 18 in-lb. Turns are out from a light seat."
          className="num"
          value={draft.screws}
          problem={errors.screws}
          rows={Math.max(2, draft.screws.split('\n').length)}
          onChange={(event) => put({ screws: event.target.value })}
        />
      </Card>
      <div className="grid gap-4 lg:grid-cols-2">
        {groupsOf(form, draft).map((group) => (
          <Card key={group.at} label={group.title} title={group.title} className="grid content-start gap-2">
            {group.hint && <p className="text-mute text-note">{group.hint}</p>}
            {group.at === 'lever' && (
              <Choice
                label="Measured from"
                value={draft.leverDatum}
                options={[
                  { value: 'gaugeLeg', label: 'gauge’s middle leg' },
                  { value: 'chamberFloor', label: 'chamber floor' },
                  { value: 'bodyFace', label: 'body’s face' },
                ]}
                onChange={(leverDatum) => put({ leverDatum })}
              />
            )}
            {group.at === 'float.body' && (
              <Choice
                label="Shape of the float"
                value={draft.bodyShape}
                options={[
                  { value: 'upright', label: 'upright sides' },
                  { value: 'lying', label: 'lying cylinders' },
                ]}
                onChange={(bodyShape) => put({ bodyShape })}
              />
            )}
            {group.at === 'traits' && (
              <Choice
                label="Float from above"
                value={draft.floatShape}
                options={['round', 'twin', 'horseshoe', 'none'].map((value) => ({ value, label: value }))}
                onChange={(floatShape) => put({ floatShape })}
              />
            )}
            {group.at === 'opens' && draft.choke === 'heat' && (
              <Choice
                label="What moves it"
                value={draft.element}
                options={choices(elementWord)}
                onChange={(element) => put({ element })}
              />
            )}
            <div className="grid grid-cols-2 gap-3 sm:grid-cols-3">
              {group.boxes.map((field) => {
                const box = `${group.at}.${field.name}`;
                return (
                  <TextField
                    key={box}
                    label={boxLabel(capital(field.label), sign(field.dimension, units))}
                    aria-label={boxLabel(`${group.title}, ${field.label}`, sign(field.dimension, units))}
                    inputMode="decimal"
                    className="num"
                    placeholder={field.usual == null ? '' : figure(field.dimension, field.usual, units)}
                    value={draft.numbers[box] ?? ''}
                    problem={errors[box]}
                    onChange={(event) => put({ numbers: { ...draft.numbers, [box]: event.target.value } })}
                  />
                );
              })}
            </div>
          </Card>
        ))}
      </div>
      <Card label="Where it is from" className="grid gap-3 sm:grid-cols-2">
        <TextField
          label="Where the figures are from"
          hint="A plate, a manual’s page, measured here"
          value={draft.source}
          problem={errors.source}
          onChange={(event) => put({ source: event.target.value })}
        />
        {correcting && (
          <TextArea
            label="What is changed, and why"
            value={draft.why}
            rows={2}
            problem={errors.why}
            onChange={(event) => put({ why: event.target.value })}
          />
        )}
      </Card>
      <div className="flex flex-wrap gap-2">
        <Button type="submit" look="hands" disabled={save.busy}>
          {correcting
            ? 'Put the new issue on file'
            : tray
              ? `Put it on file, and tray ${tray.number} by it`
              : 'Put it on file'}
        </Button>
        <Button
          look="quiet"
          onClick={() => {
            clear();
            void navigate(-1);
          }}
        >
          Drop it
        </Button>
      </div>
    </form>
  );
}

function Named({ what, children }: { what: string; children: ReactNode }) {
  return (
    <div className="grid content-start gap-1">
      <span className="font-strong">{what}</span>
      {children}
    </div>
  );
}

const boxLabel = (label: string, unit: string): string => (unit ? `${label}, ${unit}` : label);

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

interface Column {
  name: string;
  label: string;
  number?: boolean;
}

/** A list on the sheet, a row a thing; the window of a bore is said while it is typed. */
function Rows({
  rows,
  columns,
  usual,
  problem,
  windows,
  more,
  onChange,
}: {
  rows: DraftRow[];
  columns: Column[];
  /** What is allowed either way when nobody says it, in millimetres. */
  usual: number;
  problem: (row: number) => string | undefined;
  windows: (row: number) => Span | undefined;
  more: string;
  onChange: (rows: DraftRow[]) => void;
}) {
  const units = useUnits();
  return (
    <div className="grid gap-2">
      {rows.map((row, i) => (
        <div key={i} className="flex flex-wrap items-end gap-2">
          {columns.map((column) => (
            <TextField
              key={column.name}
              label={capital(column.label)}
              aria-label={`${capital(column.label)}, ${i + 1}`}
              className={column.number ? 'num max-w-36' : 'max-w-56'}
              inputMode={column.number ? 'decimal' : 'text'}
              placeholder={column.name === 'tolerance' ? figure('length', usual, units) : ''}
              value={row[column.name] ?? ''}
              onChange={(event) =>
                onChange(rows.map((one, at) => (at === i ? { ...one, [column.name]: event.target.value } : one)))
              }
            />
          ))}
          <Button
            aria-label={`Take out: ${more.toLowerCase()} ${i + 1}`}
            className="px-3"
            onClick={() => onChange(rows.filter((_, at) => at !== i))}
          >
            <X aria-hidden size={18} />
          </Button>
          <RowSays problem={problem(i)} window={windows(i)} />
        </div>
      ))}
      <div>
        <Button onClick={() => onChange([...rows, {}])}>
          <Plus aria-hidden size={18} /> {more}
        </Button>
      </div>
    </div>
  );
}

/** What is wrong with a row, or the window of its bore. */
function RowSays({ problem, window }: { problem: string | undefined; window: Span | undefined }) {
  const units = useUnits();
  if (problem) return <span className="text-bad min-h-11 content-center font-medium">{problem}</span>;
  if (!window) return null;
  const text = (value: number | null): string => figure('length', value ?? 0, units);
  return (
    <span className="text-mute min-h-11 content-center">
      {text(window.low)} to {text(window.high)} {sign('length', units)}
    </span>
  );
}

/** The first thing that is wrong with a row of a list. */
const problemAt =
  (errors: Record<string, string>, list: string) =>
  (row: number): string | undefined =>
    Object.entries(errors).find(([field]) => field.startsWith(`${list}[${row}]`))?.[1];

const windowAt =
  (windows: Record<string, Span> | undefined, list: string) =>
  (row: number): Span | undefined =>
    windows?.[`${list}[${row}]`];

/** Whether the box of a field is empty; a list's boxes are named without their unit. */
function isEmpty(draft: SheetDraft, field: string): boolean {
  const row = /^(jets|emulsionRows)\[(\d+)\]\.([a-z]+)/.exec(field);
  if (!row) return (draft.numbers[field] ?? '').trim() === '';
  const [, list, at, column = ''] = row;
  return ((list === 'jets' ? draft.jets : draft.rows)[Number(at)]?.[column] ?? '').trim() === '';
}
