import { useSyncExternalStore } from 'react';
import { parcels } from '../outbox/parcels';
import { Notice } from '../ui/states';

/** Check-ins that are still on this device. */
export function CheckedInHere() {
  const here = useSyncExternalStore(parcels.subscribe, parcels.current).filter((one) => one.what === 'checkIn');
  if (here.length === 0) return null;
  return (
    <Notice tone="unsure" title={`Checked in on this device: ${here.map((one) => one.body.machineName).join(', ')}`}>
      A tray number comes when the server is back. Until then keep the carburetor with its name on it.
    </Notice>
  );
}
