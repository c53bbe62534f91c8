import { useQuery } from '@tanstack/react-query';
import { useDeferredValue, useState } from 'react';
import { api, ask } from '../../api/client';
import { TextField } from '../../ui/field';
import { keys } from '../../api/keys';

/** Any item of the catalogue, by its number or name, whether it was ever on the shelf or not. */
export function FindItem({ onPick }: { onPick: (item: string) => void }) {
  const [typed, setTyped] = useState('');
  const find = useDeferredValue(typed.trim());
  const found = useQuery({
    queryKey: keys.found(find),
    queryFn: () => ask(api.GET('/api/stock/items', { params: { query: { find } } })),
    enabled: find.length >= 2,
    placeholderData: (before) => before,
  });
  const pick = (item: string): void => {
    setTyped('');
    onPick(item);
  };
  return (
    <form
      role="search"
      className="relative w-full max-w-80"
      onSubmit={(event) => {
        event.preventDefault();
        const first = found.data?.[0];
        if (first) pick(first.number);
      }}
    >
      <TextField
        label="Book something in or out"
        placeholder="Number or name"
        value={typed}
        maxLength={60}
        onChange={(e) => setTyped(e.target.value)}
      />
      {find.length >= 2 && (
        <ul
          aria-label="Found"
          className="bg-sheet border-line-strong absolute inset-x-0 z-20 mt-1 max-h-80 overflow-y-auto rounded-lg border shadow-lg"
        >
          {(found.data ?? []).map((item) => (
            <li key={item.number}>
              <button
                type="button"
                onClick={() => pick(item.number)}
                className="hover:bg-steel focus:bg-steel min-h-11 w-full px-3 text-left leading-snug"
              >
                <span className="num font-bold">{item.number}</span> {item.name}
              </button>
            </li>
          ))}
          {found.data?.length === 0 && (
            <li className="text-mute px-3 py-2">Nothing in the catalogue is called that.</li>
          )}
        </ul>
      )}
    </form>
  );
}
