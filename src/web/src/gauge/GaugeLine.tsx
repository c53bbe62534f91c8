import { ChevronDown, CloudOff, Pencil, Plus, Timer, Undo2 } from 'lucide-react';
import { Collapsible } from 'radix-ui';
import { useEffect, useId, useRef, useState, type ReactNode } from 'react';
import { v7 as uuidv7 } from 'uuid';
import { api, ask, problemOf, type Entry, type EntryField, type Line, type UnitSystem } from '../api/client';
import { useAtTheBench, useUnits } from '../session/session';
import { useTakeTray } from '../shell/queries';
import { Button } from '../ui/button';
import { Choice } from '../ui/choice';
import { Notice } from '../ui/states';
import { VerdictWord, verdictText } from '../ui/verdict';
import { moment, quantity, say, withUnit } from '../units/format';
import { EntryBox } from './EntryBox';
import { HoldCurve } from './HoldCurve';
import { Scale } from './Scale';
import { useLine, type LineState } from './useLine';

interface Props {
  tray: number;
  line: Line;
  history: Entry[];
  locked: boolean;
}

/** Moves to the next empty box of the line; when there is none, false. */
function nextBox(from: HTMLElement): boolean {
  const boxes = [...(from.closest('[data-line]')?.querySelectorAll<HTMLInputElement>('input[data-entry]') ?? [])];
  const later = boxes
    .slice(boxes.indexOf(from as HTMLInputElement) + 1)
    .find((box) => box.value === '' && !box.disabled && box.dataset.entry !== 'angle');
  later?.focus();
  return later !== undefined;
}

/** Moves to the first box of the next line that still needs a reading. */
function nextLine(from: HTMLElement | null): void {
  const lines = [...document.querySelectorAll<HTMLElement>('[data-line]')];
  const here = from?.closest<HTMLElement>('[data-line]');
  const later = lines.slice(here ? lines.indexOf(here) + 1 : 0);
  const target = later.find((line) => line.dataset.open === 'true') ?? later[0];
  target
    ?.querySelector<HTMLElement>(
      'input[data-entry]:not([data-entry="angle"]):not([data-entry="time"]), input[data-entry]',
    )
    ?.focus();
}

/** The one component for every measurement: what it is, its window, the entry, the verdict, and the why a touch away. */
export function GaugeLine({ tray, line, history, locked }: Props) {
  const units = useUnits();
  const mayRecord = useAtTheBench() && !locked;
  const state = useLine(tray, line);
  const [why, setWhy] = useState(false);
  const id = useId();
  const { judgement } = state;
  const open = line.required && line.judgement.verdict !== 'good';

  const record = async (from: HTMLElement | null): Promise<void> => {
    if (!state.dirty) {
      nextLine(from);
      return;
    }
    if (await state.record()) nextLine(from);
  };
  const onEnter = (from: HTMLElement): void => {
    if (!nextBox(from)) void record(from);
  };
  const problems = Object.values(state.errors);
  const area = ['areaLow', 'areaHigh']
    .map((key) => judgement.figures.find((f) => f.key === key)?.quantity.value)
    .filter((v) => v !== undefined);

  return (
    <article data-line={line.key} data-open={open} aria-label={line.label} className="border-line border-t py-2.5">
      <div className="grid grid-cols-[minmax(6.5rem,7.5rem)_minmax(9rem,11.5rem)_minmax(12rem,1fr)_minmax(8.5rem,10rem)] items-center gap-x-3 gap-y-2 max-md:grid-cols-2">
        <div>
          <h3 className="text-[1.0625rem] leading-tight">{line.label}</h3>
          <p className="text-mute text-[0.9375rem] leading-tight">{say(line.target, units)}</p>
        </div>
        <div>
          {line.window &&
            (line.form.rows && line.window.dimension === 'pressure' ? (
              <HoldCurve reading={state.reading} window={line.window} judgement={judgement} />
            ) : (
              <Scale window={line.window} judgement={judgement} label={line.label} />
            ))}
        </div>
        <div className="max-md:col-span-2">
          <SingleEntry
            state={state}
            line={line}
            disabled={!mayRecord}
            onEnter={onEnter}
            describedBy={problems.length > 0 ? `${id}-wrong` : undefined}
          />
        </div>
        <div aria-live="polite" className="max-md:col-span-2">
          <VerdictWord judgement={judgement} />
          {area.length > 0 && (
            <p className="text-mute num text-[0.875rem]">{area.map((v) => Math.round(v)).join('–')} % of area</p>
          )}
          {state.dirty && judgement !== line.judgement && (
            <p className="text-mute text-[0.875rem]">as typed, not recorded</p>
          )}
          {state.kept && (
            <p className="text-unsure flex items-center gap-1 text-[0.9375rem] font-[600]">
              <CloudOff aria-hidden size={16} /> kept on this device
            </p>
          )}
        </div>
      </div>

      {line.form.rows && <RowEntry state={state} line={line} disabled={!mayRecord} onEnter={onEnter} />}

      {problems.length > 0 && (
        <div id={`${id}-wrong`} role="alert" className="text-bad mt-1.5 font-[550]">
          {problems.map((message) => (
            <p key={message}>{message}</p>
          ))}
        </div>
      )}
      {state.refused && (
        <div className="mt-2">
          <Notice title={state.refused.title}>
            {state.refused.detail}
            {typeof state.refused.theirs === 'string' && (
              <p className="font-[600]">
                {state.refused.theirsBy}: {state.refused.theirs}
              </p>
            )}
          </Notice>
        </div>
      )}

      <Collapsible.Root open={why} onOpenChange={setWhy} className="mt-1">
        <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
          {state.draft.correcting && <span className="text-unsure font-[600]">Correcting the reading that stands</span>}
          {judgement.verdict !== 'good' && (
            <p
              className={`max-w-prose leading-snug ${judgement.verdict === 'notRead' ? 'text-mute' : 'text-ink font-[550]'}`}
            >
              {say(judgement.doNext, units)}
            </p>
          )}
          <span className="ml-auto flex items-center gap-1">
            {state.dirty && mayRecord && (
              <>
                <Button
                  look="hands"
                  onClick={() => void record(null)}
                  disabled={state.busy}
                  aria-label={`Record ${line.label}`}
                >
                  Record
                </Button>
                <Button look="quiet" onClick={state.drop} aria-label={`Drop what was typed for ${line.label}`}>
                  Drop
                </Button>
              </>
            )}
            <Collapsible.Trigger asChild>
              <Button look="quiet" className="px-2" aria-label={`Why and history, ${line.label}`}>
                Why <ChevronDown aria-hidden size={18} className={why ? 'rotate-180' : ''} />
              </Button>
            </Collapsible.Trigger>
          </span>
        </div>
        <Collapsible.Content>
          <Why
            line={line}
            state={state}
            history={history}
            tray={tray}
            mayRecord={mayRecord}
            onClose={() => setWhy(false)}
          />
        </Collapsible.Content>
      </Collapsible.Root>
    </article>
  );
}

/** The standing reading as it was typed, with units where its reader would misread it without. */
function standingTyped(
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

interface EntryProps {
  state: LineState;
  line: Line;
  disabled: boolean;
  onEnter: (from: HTMLElement) => void;
  describedBy?: string | undefined;
}

/** The boxes of one way of measuring, and the switch to another. */
function SingleEntry({ state, line, disabled, onEnter, describedBy }: EntryProps) {
  const { groups } = line.form;
  const standing = standingTyped(line, useUnits()).values;
  const group =
    groups.find((g) => g.name === state.draft.group) ??
    groups.find((g) => g.fields.some((f) => !f.optional && standing[f.name])) ??
    groups[0];
  if (!group) return null;
  const value = (field: EntryField): string => state.draft.values[field.name] ?? '';
  const set = (field: EntryField, text: string): void =>
    state.change({ group: group.name, values: { ...state.draft.values, [field.name]: text } });
  const other = groups.find((g) => g !== group);
  return (
    <div>
      <div className="flex flex-wrap items-end gap-1.5">
        {group.fields
          .filter((field) => field.kind === 'measure')
          .map((field) => (
            <EntryBox
              key={field.name}
              field={field}
              label={`${line.label}, ${field.label}`}
              value={value(field)}
              placeholder={standing[field.name] ?? ''}
              problem={state.errors[field.name]}
              disabled={disabled}
              describedBy={describedBy}
              onChange={(text) => set(field, text)}
              onEnter={onEnter}
              onEscape={state.drop}
            />
          ))}
      </div>
      {group.fields
        .filter((field) => field.kind === 'choice')
        .map((field) => (
          <div key={field.name} className="mt-1.5">
            <Choice
              label={`${line.label}, ${field.label}`}
              value={value(field)}
              options={field.choices}
              onChange={(choice) => set(field, choice)}
              invalid={field.name in state.errors}
              disabled={disabled}
              small
            />
          </div>
        ))}
      {other && (
        <button
          type="button"
          disabled={disabled}
          className="text-mute hover:text-ink min-h-8 text-[0.9375rem] underline underline-offset-3"
          onClick={() => state.change({ group: other.name })}
        >
          {other.label} instead
        </button>
      )}
    </div>
  );
}

/** A table of readings, such as pressures in time: a column a reading, Enter goes on to the next. */
function RowEntry({ state, line, disabled, onEnter }: EntryProps) {
  const table = line.form.rows;
  const clock = useClock();
  const standing = standingTyped(line, useUnits()).rows;
  if (!table) return null;
  const rows =
    state.draft.rows.length > 0
      ? state.draft.rows
      : standing.length > 0
        ? standing.map((row) => blank(row, line))
        : table.suggested;
  const set = (index: number, name: string, text: string): void =>
    state.change({ rows: rows.map((row, i) => (i === index ? { ...row, [name]: text } : { ...row })) });
  const add = (): void => state.change({ rows: [...rows.map((row) => ({ ...row })), {}] });
  const timed = table.columns.some((c) => c.dimension === 'time');
  const due = clock.seconds === null ? -1 : rows.findLastIndex((row) => Number(row.time) <= (clock.seconds ?? 0));
  const paste = (text: string): boolean => {
    const lines = text
      .trim()
      .split(/\r?\n/)
      .map((l) => l.split(/[\t;,]\s*|\s{2,}/));
    if (lines.length < 2 || lines.some((cells) => cells.length !== table.columns.length)) return false;
    state.change({
      rows: lines.map((cells) => Object.fromEntries(table.columns.map((c, i) => [c.name, cells[i] ?? '']))),
    });
    return true;
  };
  return (
    <div className="mt-2 flex flex-wrap items-end gap-2">
      {rows.map((row, index) => (
        <fieldset
          key={index}
          className={`grid w-22 gap-1 rounded-lg border p-1.5 ${index === due ? 'border-dawn bg-dawn-soft' : 'border-line'}`}
        >
          <legend className="sr-only">
            {table.label} {index + 1}
          </legend>
          {table.columns.map((column) => (
            <EntryBox
              key={column.name}
              field={column}
              label={`${line.label}, ${table.label.toLowerCase()} ${index + 1}, ${column.label}`}
              value={row[column.name] ?? ''}
              placeholder={standing[index]?.[column.name] ?? ''}
              problem={state.errors[`rows[${index}].${column.name}`]}
              disabled={disabled}
              onChange={(text) => {
                if (!paste(text)) set(index, column.name, text);
              }}
              onEnter={onEnter}
              onEscape={state.drop}
            />
          ))}
        </fieldset>
      ))}
      <div className="grid gap-1">
        {timed && (
          <Button className="px-3" disabled={disabled} onClick={clock.toggle}>
            <Timer aria-hidden size={18} />
            <span className="num">
              {clock.seconds === null ? 'Start the clock' : `${clock.seconds.toFixed(0)} s, stop`}
            </span>
          </Button>
        )}
        <Button className="px-3" disabled={disabled} onClick={add} aria-label={`Add a ${table.label.toLowerCase()}`}>
          <Plus aria-hidden size={18} /> {table.label}
        </Button>
      </div>
    </div>
  );
}

/** A row of the standing reading with only what is known beforehand, such as its angle. */
const blank = (row: Record<string, string>, line: Line): Record<string, string> =>
  Object.fromEntries(Object.entries(row).filter(([name]) => line.form.rows?.suggested.some((s) => name in s)));

/** Seconds since the pump was let go; null while it stands. */
function useClock(): { seconds: number | null; toggle: () => void } {
  const [seconds, setSeconds] = useState<number | null>(null);
  const started = useRef(0);
  const running = seconds !== null;
  useEffect(() => {
    if (!running) return undefined;
    const timer = setInterval(() => setSeconds((performance.now() - started.current) / 1000), 200);
    return () => clearInterval(timer);
  }, [running]);
  return {
    seconds,
    toggle: () => {
      started.current = performance.now();
      setSeconds(running ? null : 0);
    },
  };
}

interface WhyProps extends Props {
  state: LineState;
  mayRecord: boolean;
  onClose: () => void;
}

/** The inputs, the rule and the source, then everything that was ever read on this line. */
function Why({ line, state, history, tray, mayRecord, onClose }: Omit<WhyProps, 'locked'>) {
  const units = useUnits();
  const take = useTakeTray();
  const [problem, setProblem] = useState('');
  const { judgement } = state;
  const correct = (): void => {
    if (!line.standing) return;
    state.change({ ...standingTyped(line, units), correcting: line.standing.entryId });
    onClose();
  };
  const withdraw = async (): Promise<void> => {
    if (!line.standing) return;
    try {
      take(
        await ask(
          api.POST('/api/trays/{number}/readings/withdrawal', {
            params: { path: { number: tray } },
            body: { id: uuidv7(), takenAt: new Date().toISOString(), supersedes: line.standing.entryId },
          }),
        ),
      );
    } catch (error) {
      const known = problemOf(error);
      setProblem(`${known.title} ${known.detail}`);
    }
  };
  return (
    <div className="bg-paper mt-1 grid gap-4 rounded-lg p-4 md:grid-cols-2">
      <section>
        <h4 className="font-[650]">Why</h4>
        <ul className="mt-1 grid gap-1">
          {judgement.why.map((sentence) => (
            <li key={sentence.text}>{say(sentence, units)}</li>
          ))}
          {judgement.why.length === 0 && <li>Nothing has been read yet.</li>}
          <li className="text-mute">Limits: {line.limitSource}</li>
        </ul>
        <dl className="mt-3 grid grid-cols-[1fr_auto] gap-x-4 gap-y-0.5">
          {judgement.figures.map((f) => (
            <div key={f.key} className="contents">
              <dt className="text-mute">{f.label}</dt>
              <dd className="num text-right font-[600]">{quantity(f.quantity, units)}</dd>
            </div>
          ))}
        </dl>
      </section>
      <section>
        <h4 className="font-[650]">Read so far</h4>
        <ol className="mt-1 grid gap-2">
          {history.map((entry) => (
            <li key={entry.id} className={entry.superseded ? 'text-mute line-through decoration-1' : ''}>
              <span className="font-[550]">{say(entry.what, units)}</span>
              <span className="text-mute block text-[0.9375rem]">
                {entry.by}, {moment(entry.takenAt)}
                {entry.supersedes && (entry.kind === 'withdrawn' ? '' : ' (correction)')}
              </span>
            </li>
          ))}
          {history.length === 0 && <li className="text-mute">Nothing yet.</li>}
        </ol>
        {line.standing && mayRecord && (
          <div className="mt-3 flex flex-wrap gap-2">
            <Button onClick={correct}>
              <Pencil aria-hidden size={16} /> Correct it
            </Button>
            <Button onClick={() => void withdraw()}>
              <Undo2 aria-hidden size={16} /> Withdraw it
            </Button>
          </div>
        )}
        {problem && (
          <p role="alert" className={`mt-2 ${verdictText.notGood}`}>
            {problem}
          </p>
        )}
      </section>
    </div>
  );
}

/** Gauge lines under their headings, as a station's sheet shows them. */
export function GaugeSheet({
  tray,
  lines,
  logbook,
  locked,
  title,
  note,
}: {
  tray: number;
  lines: Line[];
  logbook: Entry[];
  locked: boolean;
  title: string;
  note: ReactNode;
}) {
  const sections = [...new Set(lines.map((line) => line.section))];
  return (
    <section aria-label={title} className="bg-sheet border-line rounded-xl border px-4 pt-3 pb-2">
      <header className="flex flex-wrap items-baseline justify-between gap-x-4">
        <h2 className="text-[1.25rem]">{title}</h2>
        <p className="text-mute">{note}</p>
      </header>
      {sections.map((section) => (
        <div key={section}>
          <h3 className="text-mute pt-2.5 pb-1 text-[0.9375rem] font-[600]">{section}</h3>
          {lines
            .filter((line) => line.section === section)
            .map((line) => (
              <GaugeLine
                key={line.key}
                tray={tray}
                line={line}
                locked={locked}
                history={logbook.filter((entry) => entry.lineKey === line.key)}
              />
            ))}
        </div>
      ))}
    </section>
  );
}
