import type { Entry, Tray } from '../api/client';

/** A note that stands: neither taken back nor brought to its end. */
export type Remark = Entry & { remark: NonNullable<Entry['remark']> };

/** The notes that stand on a tray, the last one first. */
export const remarksOf = (tray: Tray): Remark[] => {
  const all = tray.logbook.filter((entry): entry is Remark => entry.remark !== null && !entry.superseded);
  const ended = new Set(all.map((entry) => entry.remark.ends));
  return all.filter((entry) => !ended.has(entry.id));
};
