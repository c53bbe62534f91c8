import { CircleAlert, CircleCheck, CloudOff } from 'lucide-react';
import { useSyncExternalStore } from 'react';
import { seen } from '../api/client';
import { outbox } from '../outbox/outbox';
import { parcels } from '../outbox/parcels';

/** In two words, on every page: whether everything entered here is in the book. */
export function UpToDate() {
  const pending = useSyncExternalStore(outbox.subscribe, outbox.current).length;
  const sending = useSyncExternalStore(parcels.subscribe, parcels.current).length;
  const refused = useSyncExternalStore(outbox.subscribe, outbox.notTaken).length;
  const away = useSyncExternalStore(seen.subscribe, seen.since) !== null;
  const waiting = pending + sending;
  const [Icon, word] =
    refused > 0
      ? ([CircleAlert, `${refused} not taken`] as const)
      : waiting > 0
        ? ([CloudOff, `${waiting} waiting`] as const)
        : away
          ? ([CloudOff, 'Server away'] as const)
          : ([CircleCheck, 'Up to date'] as const);
  return (
    <p className="text-night-mute flex items-center gap-1.5 px-3.25 pt-1 text-note">
      <Icon aria-hidden size={15} className="shrink-0" />
      {word}
    </p>
  );
}
