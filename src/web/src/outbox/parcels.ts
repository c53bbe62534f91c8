import { v7 as uuidv7 } from 'uuid';
import { api, ask, ProblemError, sendPhoto, type NewTray, type Problem } from '../api/client';
import { keptUnderIds, STORES } from './device';

/** A photo on its way to a tray. */
export interface PhotoParcel {
  what: 'photo';
  id: string;
  personId: string;
  takenAt: string;
  /** The tray's number; null while its check-in is on its way itself. */
  tray: number | null;
  /** The id of the check-in it came with, or null. */
  checkIn: string | null;
  part: string | null;
  blob: Blob;
  name: string;
  problem?: Problem;
}

/** A check-in on its way. */
export interface CheckInParcel {
  what: 'checkIn';
  /** The id of the tray. */
  id: string;
  personId: string;
  takenAt: string;
  body: NewTray;
  problem?: Problem;
}

export type Parcel = PhotoParcel | CheckInParcel;

/** A photo as it is picked. */
export const photoParcel = (
  personId: string,
  file: File,
  of: { tray: number | null; checkIn?: string; part?: string | null },
): PhotoParcel => ({
  what: 'photo',
  id: uuidv7(),
  personId,
  takenAt: new Date().toISOString(),
  tray: of.tray,
  checkIn: of.checkIn ?? null,
  part: of.part ?? null,
  blob: file,
  name: file.name,
});

const store = keptUnderIds<Parcel>(STORES.parcels);
const listeners = new Set<() => void>();
let all: Parcel[] = [];
let waiting: Parcel[] = [];

async function refresh(): Promise<void> {
  all = (await store.all()).sort((a, b) => a.takenAt.localeCompare(b.takenAt) || a.id.localeCompare(b.id));
  waiting = all.filter((one) => !one.problem);
  listeners.forEach((tell) => tell());
}

const passing = (error: unknown): boolean =>
  !(error instanceof ProblemError) || error.passing || error.problem.status === 401;

/**
 * Check-ins and photos on their way. Like entries they stay on the device until the server has them; a check-in goes
 * before its photos.
 */
export const parcels = {
  subscribe: (listener: () => void): (() => void) => {
    listeners.add(listener);
    void refresh();
    return () => listeners.delete(listener);
  },
  /** What is on its way. */
  current: (): Parcel[] => waiting,
  /** What was refused. */
  refused: (): Parcel[] => all.filter((one) => one.problem),
  refusedOf: (personId: string): number => all.filter((one) => one.problem && one.personId === personId).length,
  waiting: (personId: string): boolean => waiting.some((one) => one.personId === personId),

  /** Keeps them on the device; they go out by themselves. */
  async keep(...items: Parcel[]): Promise<void> {
    await store.put(...items);
    await refresh();
  },

  /** Sends a photo now, or keeps it to go out by itself when the server is away. Throws when it is refused. */
  async send(photo: PhotoParcel): Promise<void> {
    try {
      if (photo.tray === null) throw new TypeError('a photo of a check-in waits for it');
      await sendPhoto(photo.tray, photo.id, photo.blob, photo.part);
    } catch (error) {
      if (!passing(error)) throw error;
      await parcels.keep(photo);
    }
  },

  /** A person has settled what was refused, or does without it. */
  async drop(id: string): Promise<void> {
    await store.forget(id, ...all.filter((one) => one.what === 'photo' && one.checkIn === id).map((one) => one.id));
    await refresh();
  },

  /** Sends what is here of this person; the numbers of the trays it reached, or null when there was nothing. */
  async flush(personId: string): Promise<number[] | null> {
    await refresh();
    const mine = waiting.filter((one) => one.personId === personId);
    if (mine.length === 0) return null;
    const reached: number[] = [];
    for (const one of mine) {
      try {
        if (one.what === 'checkIn') {
          const { number } = await ask(api.POST('/api/trays', { body: one.body }));
          reached.push(number);
          const photos = all.filter((p): p is PhotoParcel => p.what === 'photo' && p.checkIn === one.id);
          await store.put(...photos.map((p) => ({ ...p, tray: number })));
          for (const photo of photos) photo.tray = number;
        } else if (one.tray !== null) {
          await sendPhoto(one.tray, one.id, one.blob, one.part);
          reached.push(one.tray);
        } else continue;
        await store.forget(one.id);
      } catch (error) {
        if (passing(error)) {
          if (error instanceof ProblemError && error.problem.status === 500) continue;
          break;
        }
        await store.put({ ...one, problem: (error as ProblemError).problem });
      }
    }
    await refresh();
    return reached;
  },
};
