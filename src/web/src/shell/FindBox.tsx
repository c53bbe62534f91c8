import { useQuery } from '@tanstack/react-query';
import { Search } from 'lucide-react';
import { useDeferredValue, useId, useState, type KeyboardEvent, type RefObject } from 'react';
import { useNavigate } from 'react-router';
import { api, ask } from '../api/client';
import { trayPath } from '../stations/registry';
import { keys } from './keys';
import { useBench } from './queries';

interface Page {
  to: string;
  word: string;
}

interface Hit {
  group: string;
  to: string;
  mark: string;
  words: string;
  note?: string;
}

interface Props {
  pages: readonly Page[];
  boxRef?: RefObject<HTMLInputElement | null> | undefined;
  /** Whether it is where typing begins. */
  first?: boolean;
  onGo?: (() => void) | undefined;
}

/** One box for everything with a name or a number: trays, owners, stamps, sheets, items, pages. */
export function FindBox({ pages, boxRef, first = false, onGo }: Props) {
  const navigate = useNavigate();
  const list = useId();
  const [find, setFind] = useState('');
  const [place, setPlace] = useState(0);
  const hits = useHits(find.trim(), pages);
  const chosen = Math.min(place, hits.length - 1);
  const wanted = find.trim() !== '';

  const clear = (): void => {
    setFind('');
    setPlace(0);
  };
  const go = (hit: Hit | undefined): void => {
    if (!hit) return;
    clear();
    void navigate(hit.to);
    onGo?.();
  };
  const onKey = (event: KeyboardEvent<HTMLInputElement>): void => {
    if (event.key === 'Escape' && find !== '') {
      event.preventDefault();
      event.stopPropagation();
      clear();
    } else if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
      event.preventDefault();
      const step = event.key === 'ArrowDown' ? 1 : hits.length - 1;
      if (hits.length > 0) setPlace((chosen + step) % hits.length);
    }
  };
  return (
    <>
      <form
        role="search"
        className="border-night-mute/50 mx-3 mt-1 mb-1 flex items-center gap-2 rounded-lg border px-3"
        onSubmit={(event) => {
          event.preventDefault();
          go(hits[chosen]);
        }}
      >
        <Search aria-hidden size={18} />
        <input
          ref={boxRef}
          role="combobox"
          aria-label="Find anything"
          aria-expanded={wanted}
          aria-controls={list}
          aria-autocomplete="list"
          aria-activedescendant={wanted && hits.length > 0 ? `${list}-${chosen}` : undefined}
          placeholder="Find  /"
          autoComplete="off"
          autoFocus={first}
          value={find}
          maxLength={60}
          onKeyDown={onKey}
          onChange={(event) => {
            setFind(event.target.value);
            setPlace(0);
          }}
          className="placeholder:text-night-mute min-h-11 w-full bg-transparent outline-none"
        />
      </form>
      <p role="status" className={wanted ? 'text-night-mute px-4 pt-1 text-note' : 'sr-only'}>
        {!wanted
          ? ''
          : hits.length === 0
            ? 'Nothing answers to that.'
            : hits.length === 1
              ? '1 found'
              : `${hits.length} found`}
      </p>
      <div
        id={list}
        role="listbox"
        aria-label="Found"
        className={wanted ? 'max-h-[60dvh] shrink-0 overflow-y-auto pb-2' : 'hidden'}
      >
        {[...new Set(hits.map((hit) => hit.group))].map((group) => (
          <div key={group} role="group" aria-label={group}>
            <p aria-hidden className="text-night-mute px-4 pt-2 text-note font-medium">
              {group}
            </p>
            {hits.map((hit, i) =>
              hit.group === group ? (
                // eslint-disable-next-line jsx-a11y/click-events-have-key-events -- the box above has the keys: this is what it points at
                <div
                  key={hit.to}
                  id={`${list}-${i}`}
                  ref={i === chosen ? (option) => option?.scrollIntoView({ block: 'nearest' }) : undefined}
                  role="option"
                  tabIndex={-1}
                  aria-selected={i === chosen}
                  onMouseDown={(event) => event.preventDefault()}
                  onClick={() => go(hit)}
                  className="aria-selected:bg-paper aria-selected:text-ink text-night-text min-h-11 cursor-pointer px-4 py-1.5 leading-tight hover:bg-white/10"
                >
                  <span className="num font-bold">{hit.mark}</span> <span>{hit.words}</span>
                  {hit.note && <span className="block truncate text-note opacity-80">{hit.note}</span>}
                </div>
              ) : null,
            )}
          </div>
        ))}
      </div>
    </>
  );
}

/** What answers to a text: trays and pages from what is at hand, so that it answers while typing and without the server; the rest from the server. */
function useHits(text: string, pages: readonly Page[]): Hit[] {
  const bench = useBench();
  const asked = useDeferredValue(text);
  const found = useQuery({
    queryKey: keys.find(asked),
    queryFn: () => ask(api.GET('/api/find', { params: { query: { text: asked } } })),
    enabled: asked.length > 0,
    staleTime: 10_000,
    placeholderData: (before) => before,
    retry: false,
  });
  if (text === '') return [];
  const wanted = text.toLowerCase();
  const trays = (bench.data?.trays ?? [])
    .filter((tray) =>
      `${tray.number} ${tray.machineName} ${tray.ownerName} ${tray.complaint}`.toLowerCase().includes(wanted),
    )
    .map((tray) => ({
      number: tray.number,
      machineName: tray.machineName,
      ownerName: tray.ownerName,
      handedBack: tray.waitsFor === 'handedBack',
      // What it was found by, where that is not seen otherwise.
      says: `${tray.number} ${tray.machineName} ${tray.ownerName}`.toLowerCase().includes(wanted) ? '' : tray.complaint,
    }));
  const more = (asked === text ? (found.data?.trays ?? []) : [])
    .filter((tray) => !trays.some((other) => other.number === tray.number))
    .map((tray) => ({ ...tray, says: tray.stampedNumber }));
  const all = [...trays, ...more].sort(
    (a, b) =>
      Number(b.number === Number(text)) - Number(a.number === Number(text)) ||
      Number(a.handedBack) - Number(b.handedBack),
  );
  return [
    ...all.slice(0, 12).map((tray) => ({
      group: 'Trays',
      to: trayPath(tray.number),
      mark: String(tray.number),
      words: tray.machineName,
      note: [tray.ownerName, tray.handedBack ? 'handed back' : '', tray.says].filter((word) => word !== '').join(', '),
    })),
    ...(asked === text ? (found.data?.sheets ?? []) : []).map((sheet) => ({
      group: 'Spec sheets',
      to: `/sheets/${sheet.code}`,
      mark: sheet.code,
      words: sheet.maker,
    })),
    ...(asked === text ? (found.data?.items ?? []) : []).map((item) => ({
      group: 'Items',
      to: `/stock/shelf?item=${encodeURIComponent(item.number)}`,
      mark: item.number,
      words: item.name,
    })),
    ...pages
      .filter((page) => page.word.toLowerCase().includes(wanted))
      .map((page) => ({ group: 'Pages', to: page.to, mark: '', words: page.word })),
  ];
}
