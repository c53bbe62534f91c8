import type { Span, StartSeries } from '../../api/client';
import { openingAt, type StartTimes } from './opening';

const W = 360;
const H = 74;

interface Props {
  times: StartTimes;
  /** Where the clock stands; null while it does not run. */
  now: number | null;
  window: Span | null;
  /** What instruments wrote down, when the times are from them. */
  series: StartSeries | null;
  label: string;
}

/** The start on one line of time: the window it should be open in, how the plate opened, where the engine faltered. */
export function StartTimeline({ times, now, window, series, label }: Props) {
  const last = Math.max(series?.timesS.at(-1) ?? 0, times.open ?? 0, times.faltered ?? 0, times.begins ?? 0, now ?? 0);
  const end = Math.max((window?.high ?? 4) * 1.25, last * 1.1);
  const x = (s: number): number => 8 + (s / end) * (W - 16);
  const y = (opening: number): number => 50 - opening * 36;
  const marks = [0, times.begins, times.half, times.open].filter((t) => t !== null).sort((a, b) => a - b);
  const path = marks.map((t, i) => `${i === 0 ? 'M' : 'L'}${x(t).toFixed(1)} ${y(openingAt(times, t)).toFixed(1)}`);
  const most = Math.max(1, ...(series?.speedsRpm ?? []));
  const speed = series?.speedsRpm?.map(
    (rpm, i) =>
      `${i === 0 ? 'M' : 'L'}${x((series.speedTimesS ?? series.timesS)[i] ?? 0).toFixed(1)} ${(50 - (rpm / most) * 40).toFixed(1)}`,
  );
  if (times.open !== null) path.push(`L${x(end).toFixed(1)} ${y(1)}`);
  return (
    <svg
      viewBox={`0 0 ${W} ${speed ? H + 16 : H}`}
      className="w-full"
      role="img"
      aria-label={
        `${label}: ${times.open === null ? 'not open yet' : `open after ${times.open} s`}` +
        (times.faltered === null ? '' : `, faltered after ${times.faltered} s`)
      }
    >
      {window && (
        <rect
          x={x(window.low ?? 0)}
          y={10}
          width={x(window.high ?? end) - x(window.low ?? 0)}
          height={40}
          fill="var(--ok-soft)"
          stroke="var(--ok)"
        />
      )}
      <path d={`M8 50H${W - 8}`} stroke="var(--tick)" />
      {speed && <path d={speed.join('')} fill="none" stroke="var(--mute)" strokeWidth={1.4} />}
      <path d={path.join('')} fill="none" stroke="var(--ink)" strokeWidth={3} />
      {times.faltered !== null && (
        <path d={`M${x(times.faltered)} 8v44m-5-12l5 12 5-12`} fill="none" stroke="var(--bad)" strokeWidth={2.5} />
      )}
      {now !== null && <path d={`M${x(now)} 6v46`} stroke="var(--dawn)" strokeWidth={2} />}
      <text x={8} y={68} fontSize={13} fill="var(--mute)" className="num">
        0
      </text>
      {window?.high !== null && window?.high !== undefined && (
        <text x={x(window.high)} y={68} fontSize={13} textAnchor="middle" fill="var(--mute)" className="num">
          {window.high} s
        </text>
      )}
      {speed && (
        <text x={W - 8} y={84} fontSize={13} textAnchor="end" fill="var(--mute)">
          thin line: engine speed
        </text>
      )}
    </svg>
  );
}
