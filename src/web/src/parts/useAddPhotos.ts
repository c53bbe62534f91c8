import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { problemOf, type Problem } from '../api/client';
import { parcels, photoParcel } from '../outbox/parcels';
import { usePerson } from '../session/session';
import { keys } from '../api/keys';

/** Adds photos to a tray, or to one part of it. While the server is away they are kept and go out by themselves. */
export function useAddPhotos(tray: number, part: string | null = null) {
  const queries = useQueryClient();
  const person = usePerson();
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<Problem | null>(null);
  const add = async (files: File[]): Promise<void> => {
    setBusy(true);
    setProblem(null);
    for (const file of files) {
      try {
        await parcels.send(photoParcel(person.id, file, { tray, part }));
      } catch (error) {
        const known = problemOf(error);
        setProblem({
          ...known,
          title: `${file.name}: ${known.title}`,
          detail: known.errors.photo?.[0] ?? known.detail,
        });
      }
    }
    await queries.invalidateQueries({ queryKey: keys.photos(tray) });
    setBusy(false);
  };
  return { add, busy, problem };
}
