import { useEffect, useState } from 'react';
import { api, ask, problemOf, type StartSeries } from '../../api/client';
import { columnsOf, fromInstruments } from './opening';

interface Props {
  disabled: boolean;
  /** The line's boxes by their names, and what they were found in. */
  onFound: (values: Record<string, string>, series: StartSeries) => void;
}

/** From this many rows on what is pasted is a start that was written down. */
const FEWEST = 4;

const text = (seconds: number | null): string => (seconds === null ? '' : seconds.toFixed(1));
const small = 'text-mute hover:text-ink inline-flex min-h-8 items-center text-note underline underline-offset-3';

/** A start that instruments wrote down: time, plate angle and, where it was read, engine speed. */
export function SeriesFile({ disabled, onFound }: Props) {
  const [said, setSaid] = useState('');
  const look = async (reading: Promise<StartSeries | null>): Promise<void> => {
    try {
      const series = await reading;
      if (!series) {
        setSaid('It needs columns of time, plate angle and speed');
        return;
      }
      const found = await ask(api.POST('/api/compute/choke-opening', { body: series }));
      if (found.stoodOpen) {
        setSaid('The plate stood open from the start: cold, it should be shut. Nothing was timed.');
        return;
      }
      setSaid('');
      const { beginsS, halfS, openS, falteredS, ended } = found;
      onFound(
        { begins: text(beginsS), half: text(halfS), open: text(openS), faltered: text(falteredS), end: ended },
        series,
      );
    } catch (error) {
      setSaid(problemOf(error).title);
    }
  };
  useEffect(() => {
    // Columns copied from a sheet or a logger are pasted anywhere on the page; anything else goes where it was meant to.
    const onPaste = (event: ClipboardEvent): void => {
      if (event.defaultPrevented) return;
      const columns = columnsOf(event.clipboardData?.getData('text') ?? '');
      if (disabled || !columns || columns.timesS.length < FEWEST) return;
      event.preventDefault();
      void look(Promise.resolve(columns));
    };
    document.addEventListener('paste', onPaste);
    return () => document.removeEventListener('paste', onPaste);
  });
  if (disabled) return null;
  return (
    <div className="flex flex-wrap items-center gap-x-3.5">
      <label className={`${small} cursor-pointer focus-within:outline-2`}>
        From a file of plate angle and speed, or paste its columns
        <input
          type="file"
          accept=".csv,.txt,text/csv,text/plain"
          className="sr-only"
          aria-label="A file of plate angle and speed"
          onChange={(event) => {
            const input = event.currentTarget;
            const file = input.files?.[0];
            if (file) void look(file.text().then(columnsOf));
            input.value = '';
          }}
        />
      </label>
      <button type="button" className={small} onClick={() => void look(fromInstruments())}>
        From angle sensor and tachometer
      </button>
      {said && (
        <span role="status" className="text-unsure text-note font-strong">
          {said}
        </span>
      )}
    </div>
  );
}
