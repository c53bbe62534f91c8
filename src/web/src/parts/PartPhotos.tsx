import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { v7 as uuidv7 } from 'uuid';
import { api, ask, problemOf, sendPhoto } from '../api/client';
import { PhotoPicker } from '../tray/Photos';
import { keys } from '../shell/keys';

const usePhotos = (tray: number) =>
  useQuery({
    queryKey: keys.photos(tray),
    queryFn: () => ask(api.GET('/api/trays/{number}/photos', { params: { path: { number: tray } } })),
  });

/** Photos of one part, taken as it came out and shown again when it goes back. */
export function PartPhotos({ tray, part, mayAdd }: { tray: number; part: string; mayAdd: boolean }) {
  const queries = useQueryClient();
  const photos = usePhotos(tray);
  const [trouble, setTrouble] = useState('');
  const [busy, setBusy] = useState(false);
  const add = async (files: File[]): Promise<void> => {
    setBusy(true);
    setTrouble('');
    for (const file of files) {
      try {
        await sendPhoto(tray, uuidv7(), file, part);
      } catch (error) {
        const problem = problemOf(error);
        setTrouble(`${file.name}: ${problem.errors.photo?.[0] ?? problem.title}`);
      }
    }
    await queries.invalidateQueries({ queryKey: keys.photos(tray) });
    setBusy(false);
  };
  const here = (photos.data ?? []).filter((photo) => photo.part === part);
  if (here.length === 0 && !mayAdd) return null;
  return (
    <div className="flex flex-wrap items-center gap-2">
      {here.map((photo) => (
        <a key={photo.id} href={`/api/photos/${photo.id}`} target="_blank" rel="noreferrer">
          <img
            src={`/api/photos/${photo.id}`}
            alt={`Taken by ${photo.by}`}
            width={photo.width}
            height={photo.height}
            loading="lazy"
            className="border-line h-20 w-auto rounded-lg border object-cover"
          />
        </a>
      ))}
      {mayAdd && <PhotoPicker disabled={busy} onPick={(files) => void add(files)} />}
      {trouble && (
        <p role="alert" className="text-bad font-medium">
          {trouble}
        </p>
      )}
    </div>
  );
}
