import { useQuery } from '@tanstack/react-query';
import { Camera } from 'lucide-react';
import { useLocation } from 'react-router';
import { api, ask } from '../api/client';
import { Notice } from '../ui/states';
import { moment } from '../units/format';
import { keys } from '../api/keys';
import { useAddPhotos } from './useAddPhotos';

/** A button that takes photos, or picks them. */
export function PhotoPicker({ onPick, disabled }: { onPick: (files: File[]) => void; disabled?: boolean }) {
  return (
    <label
      className={`border-line-strong hover:border-ink bg-sheet has-focus-visible:outline-dawn inline-flex min-h-11 cursor-pointer
      items-center gap-2 rounded-lg border-[1.5px] px-4 font-medium has-focus-visible:outline-3
      has-disabled:opacity-60`}
    >
      <Camera aria-hidden size={18} /> Add photos
      <input
        type="file"
        accept="image/jpeg,image/png,image/webp"
        multiple
        className="sr-only"
        disabled={disabled}
        onChange={(event) => {
          onPick([...(event.target.files ?? [])]);
          event.target.value = '';
        }}
      />
    </label>
  );
}

/** Photos of a tray: how it came in. */
export function Photos({ tray, mayAdd }: { tray: number; mayAdd: boolean }) {
  const photos = useQuery({
    queryKey: keys.photos(tray),
    queryFn: () => ask(api.GET('/api/trays/{number}/photos', { params: { path: { number: tray } } })),
  });
  const lost = (useLocation().state as { photosLost?: number } | null)?.photosLost ?? 0;
  const { add, busy, problem } = useAddPhotos(tray);
  return (
    <section aria-label="Photos" className="grid gap-2">
      <div className="flex flex-wrap items-center justify-between gap-3">
        <h3 className="text-mute text-note font-strong">Photos</h3>
        {mayAdd && <PhotoPicker disabled={busy} onPick={(files) => void add(files)} />}
      </div>
      {lost > 0 && !problem && (
        <Notice tone="unsure" title={lost === 1 ? 'A photo could not be kept.' : `${lost} photos could not be kept.`}>
          The tray is checked in. Add them again here.
        </Notice>
      )}
      {problem && <Notice title={problem.title}>{problem.detail}</Notice>}
      {photos.data && photos.data.length > 0 && (
        <ul className="flex flex-wrap gap-2">
          {photos.data.map((photo) => (
            <li key={photo.id}>
              <a href={`/api/photos/${photo.id}`} target="_blank" rel="noreferrer">
                <img
                  src={`/api/photos/${photo.id}`}
                  alt={`Taken by ${photo.by}, ${moment(photo.addedAt)}`}
                  width={photo.width}
                  height={photo.height}
                  loading="lazy"
                  className="border-line h-28 w-auto rounded-lg border object-cover"
                />
              </a>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
