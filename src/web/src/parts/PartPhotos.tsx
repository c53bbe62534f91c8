import { useQuery } from '@tanstack/react-query';
import { api, ask } from '../api/client';
import { PhotoPicker } from './Photos';
import { useAddPhotos } from './useAddPhotos';
import { keys } from '../api/keys';

const usePhotos = (tray: number) =>
  useQuery({
    queryKey: keys.photos(tray),
    queryFn: () => ask(api.GET('/api/trays/{number}/photos', { params: { path: { number: tray } } })),
  });

/** Photos of one part, taken as it came out and shown again when it goes back. */
export function PartPhotos({ tray, part, mayAdd }: { tray: number; part: string; mayAdd: boolean }) {
  const photos = usePhotos(tray);
  const { add, busy, problem } = useAddPhotos(tray, part);
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
      {problem && (
        <p role="alert" className="text-bad font-medium">
          {problem.title} {problem.detail}
        </p>
      )}
    </div>
  );
}
