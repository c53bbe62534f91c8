import { Timer } from 'lucide-react';
import { BareButton } from '../ui/button';
import type { EntryField } from '../api/client';
import { usePerson } from '../session/session';
import { useKeptClock } from './useKeptClock';

interface Props {
  tray: number;
  line: string;
  name: string;
  disabled: boolean;
  /** Moments that can be noted while it goes on. */
  marks: EntryField[];
  onMark: (field: string, minutes: string) => void;
  /** Minutes to a tenth, when it is stopped. */
  onMinutes: (minutes: string) => void;
}

/** A clock for what is watched for minutes. It goes on through a reload, and stops into the box. */
export function MinutesClock({ tray, line, name, disabled, marks, onMark, onMinutes }: Props) {
  const person = usePerson();
  const clock = useKeptClock(`${person.id}:${tray}:${line}`, 500);
  const seconds = clock.seconds === null ? null : Math.floor(clock.seconds);
  const face =
    'border-line-strong bg-sheet hover:bg-paper inline-flex min-h-11 items-center gap-1.5 rounded-lg border px-2.5 font-medium aria-disabled:opacity-60';
  return (
    <>
      <BareButton
        disabled={disabled}
        className={face}
        aria-label={seconds === null ? `Start the clock, ${name}` : `Stop the clock, ${name}`}
        onClick={() => {
          const now = clock.now();
          if (now === null) {
            clock.start();
            return;
          }
          onMinutes(minutesOf(now));
          clock.stop();
        }}
      >
        <Timer aria-hidden size={18} />
        {seconds === null ? (
          'Clock'
        ) : (
          <span className="num text-part font-bold">
            {Math.floor(seconds / 60)}:{String(seconds % 60).padStart(2, '0')}
          </span>
        )}
      </BareButton>
      {seconds !== null &&
        marks.map((field) => (
          <BareButton
            key={field.name}
            disabled={disabled}
            className={face}
            onClick={() => onMark(field.name, minutesOf(clock.now() ?? 0))}
          >
            Note: {field.label}
          </BareButton>
        ))}
    </>
  );
}

/** Minutes to a tenth. */
const minutesOf = (seconds: number): string => (Math.round(seconds / 6) / 10).toString();
