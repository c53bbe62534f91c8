import { useState } from 'react';
import { api, ask, problemOf } from '../../api/client';
import { columnsOf } from './opening';

interface Props {
  disabled: boolean;
  /** The line's boxes, by their names. */
  onFound: (values: Record<string, string>) => void;
}

const text = (seconds: number | null): string => (seconds === null ? '' : seconds.toFixed(1));

/** A start that instruments wrote down: time, plate angle and, where it was read, engine speed. */
export function SeriesFile({ disabled, onFound }: Props) {
  const [said, setSaid] = useState('');
  const look = (file: string): void => {
    const body = columnsOf(file);
    if (!body) {
      setSaid('It needs columns of time, plate angle and speed');
      return;
    }
    ask(api.POST('/api/compute/choke-opening', { body })).then(
      ({ beginsS, halfS, openS, falteredS, ended }) => {
        setSaid('');
        onFound({
          begins: text(beginsS),
          half: text(halfS),
          open: text(openS),
          faltered: text(falteredS),
          end: ended,
        });
      },
      (error: unknown) => setSaid(problemOf(error).title),
    );
  };
  if (disabled) return null;
  return (
    <div className="flex flex-wrap items-center gap-x-3.5">
      <label className="text-mute hover:text-ink inline-flex min-h-8 cursor-pointer items-center text-note underline underline-offset-3 focus-within:outline-2">
        From a file of plate angle and speed
        <input
          type="file"
          accept=".csv,.txt,text/csv,text/plain"
          className="sr-only"
          aria-label="A file of plate angle and speed"
          onChange={(event) => {
            const input = event.currentTarget;
            void input.files?.[0]?.text().then(look);
            input.value = '';
          }}
        />
      </label>
      {said && (
        <span role="status" className="text-unsure text-note font-strong">
          {said}
        </span>
      )}
    </div>
  );
}
