import type { Entry } from '../api/client';
import { useInitials, useUnits } from '../session/session';
import { moment, say } from '../units/format';

/** Everything that happened on a tray, newest first. What was corrected stays readable. */
export function Logbook({ entries }: { entries: Entry[] }) {
  const units = useUnits();
  const initials = useInitials();
  return (
    <section aria-label="Logbook">
      <h3 className="text-mute pb-1 text-note font-strong">Logbook</h3>
      <ol>
        {entries.map((entry) => (
          <li key={entry.id} className="border-line grid gap-x-4 border-t sm:grid-cols-[1fr_auto] py-1.5">
            <span className={entry.superseded ? 'text-mute line-through decoration-1' : ''}>
              {say(entry.what, units)}
              {entry.supersedes && entry.kind === 'reading' && ' (correction)'}
            </span>
            <span className="text-mute text-note sm:text-right">
              {initials[entry.by] && <b className="num text-ink mr-1.5">{initials[entry.by]}</b>}
              {entry.by}, {moment(entry.takenAt)}
            </span>
          </li>
        ))}
      </ol>
    </section>
  );
}
