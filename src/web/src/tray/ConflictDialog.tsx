import type { Tray, TrayFacts } from '../api/client';
import { keys } from '../api/keys';
import { waitWord } from '../shell/words';
import { useQueryClient } from '@tanstack/react-query';
import { Button } from '../ui/button';
import { Dialog } from '../ui/dialog';
import { day, localToday } from '../units/format';
import type { Conflict } from './useTrayWrite';

type Key = Exclude<keyof TrayFacts, 'ownerName' | 'ownerContact' | 'machineName' | 'checkedInAt'>;
const labels: Record<Key, string> = {
  promisedDay: 'Promised',
  waitsFor: 'Waits for',
  waitNote: 'Note',
  complaint: 'Owner says',
  stampedNumber: 'Stamped number',
  specCode: 'Spec sheet',
  fitted: 'To fit',
  ownerLimit: 'Owner agreed to',
  machineWorth: 'Machine is worth',
  family: 'Family',
  engine: 'Engine',
  choke: 'Choke',
};

const show = (key: Key, value: string | number | null | undefined): string => {
  if (value === null || value === undefined || value === '') return 'nothing';
  if (typeof value === 'number') return String(value);
  if (key === 'promisedDay') return day(value, localToday());
  return key === 'waitsFor' ? waitWord[value as keyof typeof waitWord] : value;
};

/** Two people changed one tray: both versions side by side, and whoever is here decides. */
export function ConflictDialog({
  tray,
  conflict,
  onDismiss,
}: {
  tray: Tray;
  conflict: Conflict;
  onDismiss: () => void;
}) {
  const queries = useQueryClient();
  const theirs = conflict.problem.theirs as TrayFacts;
  const changed = (Object.keys(labels) as Key[]).filter(
    (key) => conflict.mine[key] !== undefined && conflict.mine[key] !== null,
  );
  const keepTheirs = (): void => {
    void queries.invalidateQueries({ queryKey: keys.ofTray(tray.number) });
    onDismiss();
  };
  return (
    <Dialog title={conflict.problem.title} description={conflict.problem.detail} open onOpenChange={onDismiss}>
      <table className="w-full text-left">
        <thead>
          <tr className="text-mute">
            <td />
            <th className="py-1 pr-3 font-strong">Yours</th>
            <th className="py-1 font-strong">{conflict.problem.theirsBy ?? 'Theirs'}</th>
          </tr>
        </thead>
        <tbody>
          {changed.map((key) => (
            <tr key={key} className="border-line border-t align-top">
              <th scope="row" className="py-2 pr-3 font-strong">
                {labels[key]}
              </th>
              <td className="py-2 pr-3">{show(key, conflict.mine[key])}</td>
              <td className="py-2">{show(key, theirs[key])}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <div className="mt-5 flex flex-wrap gap-3">
        <Button look="hands" onClick={() => void conflict.again(conflict.problem.version ?? 0)}>
          Keep mine
        </Button>
        <Button onClick={keepTheirs}>Keep theirs</Button>
      </div>
    </Dialog>
  );
}
