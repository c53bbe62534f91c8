import { queryOptions, useQuery, useQueryClient } from '@tanstack/react-query';
import { Search } from 'lucide-react';
import { useDeferredValue, useId, useState, type KeyboardEvent, type RefObject } from 'react';
import { useNavigate } from 'react-router';
import { api, ask, type BenchTray, type Found } from '../api/client';
import { trayPath } from './stations';
import { keys } from '../api/keys';
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
  // By where it leads, not by its place: what the server finds later moves nothing from under the hand.
  const [pointed, setPointed] = useState('');
  const { hits, looking, whole } = useHits(find.trim(), pages);
  const chosen = Math.max(
    hits.findIndex((hit) => hit.to === pointed),
    0,
  );
  const wanted = find.trim() !== '';

  const clear = (): void => {
    setFind('');
    setPointed('');
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
      setPointed(hits[(chosen + step) % hits.length]?.to ?? '');
    }
  };
  return (
    <>
      <form
        role="search"
        className="border-night-mute/50 mx-3 mt-1 mb-1 flex items-center gap-2 rounded-lg border px-3"
        onSubmit={(event) => {
          event.preventDefault();
          if (hits.length > 0) go(hits[chosen]);
          else if (wanted) {
            const box = event.currentTarget.querySelector('input');
            void whole().then((all) => box?.value === find && go(all[0]));
          }
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
            setPointed('');
          }}
          className="placeholder:text-night-mute min-h-11 w-full bg-transparent outline-none"
        />
      </form>
      <p role="status" className={wanted ? 'text-night-mute px-4 pt-1 text-note' : 'sr-only'}>
        {!wanted
          ? ''
          : hits.length === 0
            ? looking
              ? 'Looking …'
              : 'Nothing found.'
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
                // oxlint-disable-next-line jsx-a11y/click-events-have-key-events -- the box above has the keys: this is what it points at
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
function useHits(text: string, pages: readonly Page[]) {
  const bench = useBench();
  const client = useQueryClient();
  const asked = useDeferredValue(text);
  const found = useQuery({ ...finding(asked), enabled: asked !== '' });
  const trays = bench.data?.trays ?? [];
  return {
    // What the server found for another text is not shown as if it were for this one.
    hits: hitsOf(text, pages, trays, asked === text ? found.data : undefined),
    looking: asked !== text || found.isFetching,
    /** All of it, once the server has answered; without the server, what is at hand. */
    whole: async (): Promise<Hit[]> =>
      hitsOf(text, pages, trays, await client.query(finding(text)).catch(() => undefined)),
  };
}

const finding = (text: string) =>
  queryOptions({
    queryKey: keys.find(text),
    queryFn: () => ask(api.GET('/api/find', { params: { query: { text } } })),
    staleTime: 10_000,
    retry: false,
  });

function hitsOf(
  text: string,
  pages: readonly Page[],
  benchTrays: readonly BenchTray[],
  found: Found | undefined,
): Hit[] {
  if (text === '') return [];
  const wanted = text.toLowerCase();
  const trays = benchTrays
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
  const more = (found?.trays ?? [])
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
    ...(found?.sheets ?? []).map((sheet) => ({
      group: 'Spec sheets',
      to: `/sheets/${sheet.code}`,
      mark: sheet.code,
      words: sheet.maker,
    })),
    ...(found?.items ?? []).map((item) => ({
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
