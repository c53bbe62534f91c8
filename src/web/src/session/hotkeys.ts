import { useEffect, useRef } from 'react';
import { device } from '../outbox/device';

/** Every key that does something, with what it does: the list that ? shows is this one. */
export const hotkeys = {
  find: { keys: '/', label: '/', what: 'Find a tray, an owner, a stamp, a sheet, an item or a page' },
  enter: { keys: '', label: 'Enter', what: 'On a gauge line: next box, then record and move on' },
  escape: { keys: '', label: 'Esc', what: 'On a gauge line: drop what was typed; else leave the line' },
  bench: { keys: 'b', label: 'B', what: 'Bench' },
  checkIn: { keys: 'n', label: 'N', what: 'Check in a new tray' },
  stock: { keys: 's', label: 'S', what: 'Stock' },
  baths: { keys: 'h', label: 'H', what: 'Baths' },
  before: { keys: '[', label: '[', what: 'On a tray: the station before' },
  after: { keys: ']', label: ']', what: 'On a tray: the station after' },
  note: { keys: 'w', label: 'W', what: 'On a tray: write a note on it' },
  type: {
    keys: '0123456789.#',
    label: '0 … 9',
    what: 'On a station: straight into the first open box, for calipers that type',
  },
  timing: { keys: '', label: '1 … 7', what: 'While a choke is timed: what has just happened' },
  help: { keys: '?', label: '?', what: 'This list' },
} as const;

export type Hotkey = keyof typeof hotkeys;

/** When single keys do something: always, with Alt held, or never. Kept on the device: it is about whoever sits there. */
export type SingleKeys = 'on' | 'withAlt' | 'off';

const KEY = 'single-keys';

export const singleKeys = (): SingleKeys => {
  const stored = device.get(KEY);
  return stored === 'withAlt' || stored === 'off' ? stored : 'on';
};

export const setSingleKeys = (next: SingleKeys): void => device.set(KEY, next);

const typing = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName));

/** In a group arrows and letters belong to the group. */
const inGroup = (target: EventTarget | null): boolean =>
  target instanceof Element && target.closest('[role="group"], [role="radiogroup"], [role="listbox"]') !== null;

/** Does what the keys say while this is on the page, unless somebody is typing or a dialog is open. */
export function useHotkeys(acts: Partial<Record<Hotkey, () => void>>): void {
  const latest = useRef(acts);
  useEffect(() => {
    latest.current = acts;
  });
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      const when = singleKeys();
      if (when === 'off' || event.altKey !== (when === 'withAlt')) return;
      if (event.ctrlKey || event.metaKey || typing(event.target) || inGroup(event.target)) return;
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
