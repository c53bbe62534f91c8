import { useEffect, useRef } from 'react';

/** Every key that does something, with what it does: the list that ? shows is this one. */
export const hotkeys = {
  find: { keys: '/', label: '/', what: 'Find a tray, an owner, a stamp, a sheet, an item or a page' },
  enter: { keys: '', label: 'Enter', what: 'On a gauge line: next box, then record and move on' },
  escape: { keys: '', label: 'Esc', what: 'On a gauge line: drop what was typed' },
  bench: { keys: 'b', label: 'B', what: 'Bench' },
  checkIn: { keys: 'n', label: 'N', what: 'Check in a new tray' },
  stock: { keys: 's', label: 'S', what: 'Stock' },
  baths: { keys: 'h', label: 'H', what: 'Baths' },
  before: { keys: '[', label: '[', what: 'On a tray: the station before' },
  after: { keys: ']', label: ']', what: 'On a tray: the station after' },
  type: {
    keys: '0123456789.#',
    label: '0 … 9',
    what: 'On a station: straight into the first open box, for calipers that type',
  },
  timing: { keys: '', label: '1 … 7', what: 'While a choke is timed: what has just happened' },
  help: { keys: '?', label: '?', what: 'This list' },
} as const;

export type Hotkey = keyof typeof hotkeys;

const typing = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName));

/** Does what the keys say while this is on the page, unless somebody is typing or a dialog is open. */
export function useHotkeys(acts: Partial<Record<Hotkey, () => void>>): void {
  const latest = useRef(acts);
  useEffect(() => {
    latest.current = acts;
  });
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (event.ctrlKey || event.metaKey || event.altKey || typing(event.target)) return;
      if (document.querySelector('[role="dialog"], [role="menu"]')) return;
      const name = (Object.keys(hotkeys) as Hotkey[]).find(
        (key) => event.key.length === 1 && hotkeys[key].keys.includes(event.key),
      );
      const act = name && latest.current[name];
      if (!act) return;
      // A typed digit goes on into the box it has opened.
      if (name !== 'type') event.preventDefault();
      act();
    };
    document.addEventListener('keydown', onKey);
    return () => document.removeEventListener('keydown', onKey);
  }, []);
}
