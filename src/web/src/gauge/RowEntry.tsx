import { Plus, Timer } from 'lucide-react';
import { BareButton } from '../ui/button';
import { useEffect, useRef, useState } from 'react';
import { problemOf } from '../api/client';
import { useUnits } from '../session/session';
import { EntryBox } from './EntryBox';
import { standingTyped, type EntryProps } from './entry';
import { fromGauge, fromText, rowsIn, SERIES, seriesOf } from './series';

interface Props extends EntryProps {
  /** Whether the fields that come with the table are shown. */
  more: boolean;
  onMore: () => void;
}

/**
 * A table of readings, such as pressures in time: a box a reading, with its time or angle under it. Enter goes on to
 * the next; two columns pasted from a sheet or a logger fill it.
 */
export function RowEntry({ state, line, disabled, onEnter, more, onMore }: Props) {
  const table = line.form.rows;
  const clock = useClock();
  const [all, setAll] = useState(false);
  const [said, setSaid] = useState('');
  const units = useUnits();
  const standing = state.draft.alone ? [] : standingTyped(line, units).rows;
  const [key, column] = table?.columns ?? [];
  if (!table || !key || !column) return null;

  // A time or an angle says where a reading belongs and stays; anything else in the first box is a reading itself.
  const placed = table.suggested.some((row) => row[key.name]);
  const rows = state.draft.rows.length > 0 ? state.draft.rows : standing.length > 0 ? standing : table.suggested;
  const set = (index: number, name: string, text: string): void =>
    state.change({ rows: rows.map((row, i) => (i === index ? { ...row, [name]: text } : { ...row })) });
  const part = table.fromSeries;
  const take = (series: Promise<Parameters<typeof rowsIn>[1]>): void => {
    if (!part) return;
    series
      .then((read) => rowsIn(part, read))
      .then(
        (found) => {
          setSaid(found.length > 0 ? '' : part === 'pops' ? 'No pop in it' : 'No hold in it: it needs times');
          if (found.length > 0) state.change({ rows: found });
        },
        (error: unknown) => setSaid(problemOf(error).title),
      );
  };
  const findIn = (text: string): void => take(Promise.resolve(fromText(text, units)));
  const paste = (text: string): boolean => {
    if (part && seriesOf(text).pressures.length >= SERIES) {
      findIn(text);
      return true;
    }
    const lines = text
      .trim()
      .split(/\r?\n/)
      .map((row) => row.trim().split(/[\t;]\s*|,\s+|,(?=\S+$)|\s+/))
      .filter((cells) => cells.length === 2 && cells.every((cell) => /\d/.test(cell)));
    if (lines.length < 2) return false;
    state.change({ rows: lines.map(([at, value]) => ({ [key.name]: at ?? '', [column.name]: value ?? '' })) });
    return true;
  };

  const timed = key.dimension === 'time';
  const due = clock.seconds === null ? -1 : rows.findLastIndex((row) => Number(row[key.name]) <= (clock.seconds ?? 0));
  const small =
    'text-mute hover:text-ink inline-flex min-h-8 items-center gap-1 text-note underline underline-offset-3';
  return (
    <div className="flex flex-wrap items-center gap-x-3.5 gap-y-1.5">
      <div className="flex max-w-full flex-wrap gap-1.5">
        {rows.map((row, index) => {
          const at = row[key.name] ?? '';
          const known = placed && !all && standing.concat(table.suggested).some((r) => r[key.name] === at && at !== '');
          const place = timed ? `${at} s` : `${at}°`;
          const named = `${line.label}, ${table.label.toLowerCase()} ${index + 1}`;
          const common = { disabled, onEnter, onEscape: state.drop, onPaste: paste };
          return (
            <div
              key={index}
              className={`flex gap-1 rounded-lg ${known ? 'w-30' : 'w-full max-w-64'} ${index === due ? 'outline-dawn outline-2' : ''}`}
            >
              {!known && (
                <EntryBox
                  {...common}
                  field={key}
                  label={`${named}, ${key.label}`}
                  value={at}
                  problem={state.errors[`rows[${index}].${key.name}`]}
                  skip={key.detail}
                  onChange={(text) => set(index, key.name, text)}
                />
              )}
              <EntryBox
                {...common}
                field={column}
                label={known ? `${line.label} at ${place}` : `${named}, ${column.label}`}
                caption={known ? place : column.label}
                value={row[column.name] ?? ''}
                problem={state.errors[`rows[${index}].${column.name}`]}
                onChange={(text) => set(index, column.name, text)}
              />
            </div>
          );
        })}
      </div>
      <div className="flex flex-wrap items-center gap-x-3.5">
        {timed && (
          <BareButton
            className={small}
            disabled={disabled}
            onClick={clock.toggle}
            aria-label={clock.seconds === null ? 'Start the clock' : 'Stop the clock'}
          >
            <Timer aria-hidden size={16} />
            {clock.seconds === null ? (
              'Clock'
            ) : (
              <span className="num text-ink text-title font-bold">{clock.seconds.toFixed(0)} s</span>
            )}
          </BareButton>
        )}
        <BareButton
          className={small}
          disabled={disabled}
          onClick={() => state.change({ rows: [...rows.map((row) => ({ ...row })), {}] })}
          aria-label={`Add a ${table.label.toLowerCase()}, ${line.label}`}
        >
          <Plus aria-hidden size={16} /> {table.label}
        </BareButton>
        {placed && (
          <BareButton
            className={small}
            disabled={disabled}
            aria-pressed={all}
            onClick={() => setAll(!all)}
            aria-label={`Change the ${timed ? 'times' : 'angles'}, ${line.label}`}
          >
            {timed ? 'Times' : 'Angles'}
          </BareButton>
        )}
        {part && !disabled && (
          <>
            <SeriesFile className={small} name={line.label} onText={findIn} />
            <button
              type="button"
              className={small}
              onClick={() => take(fromGauge())}
              aria-label={`From the gauge, ${line.label}`}
            >
              From the gauge
            </button>
          </>
        )}
        {said && (
          <span role="status" className="text-unsure text-note font-strong">
            {said}
          </span>
        )}
        {line.form.groups[0] && (
          <BareButton className={small} disabled={disabled} aria-expanded={more} onClick={onMore}>
            {line.form.groups[0].label}
          </BareButton>
        )}
      </div>
    </div>
  );
}

/** A file of a gauge that writes down what it shows. */
function SeriesFile({ className, name, onText }: { className: string; name: string; onText: (text: string) => void }) {
  return (
    <label className={`${className} cursor-pointer focus-within:outline-2`}>
      From a file
      <input
        type="file"
        accept=".csv,.txt,text/csv,text/plain"
        className="sr-only"
        aria-label={`A gauge’s file, ${name}`}
        onChange={(event) => {
          const input = event.currentTarget;
          const file = input.files?.[0];
          void file?.text().then(onText);
          input.value = '';
        }}
      />
    </label>
  );
}

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
