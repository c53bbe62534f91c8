import { Timer } from 'lucide-react';
import { useEffect, useState } from 'react';
import type { Line, StartSeries } from '../../api/client';
import { useKeptClock } from '../../gauge/useKeptClock';
import { useLine } from '../../gauge/useLine';
import { usePerson } from '../../session/session';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { ChokeDrawing } from './ChokeDrawing';
import { openingAt, secondsOf } from './opening';
import { SeriesFile } from './SeriesFile';
import { StartTimeline } from './StartTimeline';

/** What can happen while a start is timed, each with a key of its own. */
const events = [
  { field: 'begins', key: '1', word: 'Begins to open' },
  { field: 'half', key: '2', word: 'Half open' },
  { field: 'open', key: '3', word: 'Fully open' },
  { field: 'faltered', key: '4', word: 'Falters' },
  { field: 'steady', key: '5', word: 'Runs evenly' },
  { field: 'stopped', key: '6', word: 'Stopped' },
  { field: 'closed', key: '7', word: 'Shut again' },
] as const;

interface Props {
  tray: number;
  line: Line;
  choke: 'vacuum' | 'heat';
  disabled: boolean;
}

/**
 * A start timed by a press at each thing that is seen: the clock fills the line's boxes, the plate moves with it. The
 * clock goes on through a reload.
 */
export function StartClock({ tray, line, choke, disabled }: Props) {
  const person = usePerson();
  const state = useLine(tray, line);
  const clock = useKeptClock(`${person.id}:${tray}:${line.key}`, 100);
  const { seconds } = clock;
  const [series, setSeries] = useState<StartSeries | null>(null);
  const fields = line.form.groups[0]?.fields ?? [];
  const offered = events.filter((event) => fields.some((field) => field.name === event.field));
  const values = { ...(state.draft.alone ? {} : line.standing?.typed.values), ...state.draft.values };
  const press = (field: string): void => {
    const now = clock.now();
    if (now === null) return;
    state.change({
      group: line.form.groups[0]?.name ?? null,
      values: { ...state.draft.values, [field]: now.toFixed(1) },
    });
  };

  useEffect(() => {
    if (seconds === null) return undefined;
    // A digit is an event while the clock runs; it does not go on into a box.
    const onKey = (event: KeyboardEvent): void => {
      const typing = event.target instanceof HTMLElement && ['INPUT', 'TEXTAREA'].includes(event.target.tagName);
      const hit = offered.find((one) => one.key === event.key);
      if (!hit || typing || event.ctrlKey || event.metaKey || event.altKey) return;
      event.preventDefault();
      event.stopImmediatePropagation();
      press(hit.field);
    };
    window.addEventListener('keydown', onKey, true);
    return () => window.removeEventListener('keydown', onKey, true);
  });

  const times = secondsOf(values);
  const opening = seconds === null ? openingAt(times, Infinity) : openingAt(times, seconds);
  return (
    <Card label="Start, timed" title="Time the start" className="grid gap-2.5">
      <div className="grid items-center gap-4 sm:grid-cols-[15rem_1fr]">
        <ChokeDrawing choke={choke} opening={opening} />
        <div className="grid gap-2.5">
          <p className="num text-heading font-bold" aria-live="off">
            {seconds === null ? '0.0 s' : `${seconds.toFixed(1)} s`}
          </p>
          <div className="flex flex-wrap gap-2">
            {seconds === null ? (
              <Button
                look="hands"
                disabled={disabled}
                onClick={() => {
                  state.change({
                    alone: true,
                    group: line.form.groups[0]?.name ?? null,
                    values: Object.fromEntries(
                      Object.entries(state.draft.values).filter(([name]) => !events.some((e) => e.field === name)),
                    ),
                  });
                  setSeries(null);
                  clock.start();
                }}
              >
                <Timer aria-hidden size={18} /> It runs: start the clock
              </Button>
            ) : (
              <>
                {offered.map((event) => (
                  <Button key={event.field} disabled={disabled} onClick={() => press(event.field)}>
                    <kbd className="num text-note">{event.key}</kbd> {event.word}
                    {state.draft.values[event.field] && (
                      <span className="num text-note">{state.draft.values[event.field]} s</span>
                    )}
                  </Button>
                ))}
                <Button look="hands" onClick={clock.stop}>
                  Stop
                </Button>
              </>
            )}
          </div>
          <SeriesFile
            disabled={disabled}
            onFound={(found, read) => {
              clock.stop();
              setSeries(read);
              state.change({
                alone: true,
                group: line.form.groups[0]?.name ?? null,
                values: {
                  ...state.draft.values,
                  ...Object.fromEntries(Object.entries(found).filter(([name]) => fields.some((f) => f.name === name))),
                },
              });
            }}
          />
          <StartTimeline times={times} now={seconds} window={line.window} series={series} label={line.label} />
        </div>
      </div>
    </Card>
  );
}
