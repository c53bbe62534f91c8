import { useSyncExternalStore } from 'react';

/**
 * What is said aloud besides what has the focus: what was recorded, with its verdict and what is next; why a button that
 * was pressed is off. One place for all of it, so that nothing is said twice.
 */
interface Said {
  text: string;
  /** Whether it is shown as well. */
  shown: boolean;
  /** Counts up, so that the same words said again are heard again. */
  turn: number;
}

const SHOWN_MS = 6_000;
/** How long a text stands at least: of two that come at once the first would not be heard. */
const GAP_MS = 150;

let said: Said = { text: '', shown: false, turn: 0 };
const listeners = new Set<() => void>();
let ending: ReturnType<typeof setTimeout> | undefined;
const waiting: Pick<Said, 'text' | 'shown'>[] = [];
let speaking = false;

function put(next: Said): void {
  said = next;
  listeners.forEach((tell) => tell());
}

function speak(): void {
  const next = waiting.shift();
  speaking = next !== undefined;
  if (!next) return;
  clearTimeout(ending);
  put({ ...next, turn: said.turn + 1 });
  if (next.shown) ending = setTimeout(() => put({ ...said, text: '', shown: false }), SHOWN_MS);
  setTimeout(speak, GAP_MS);
}

function say(text: string, shown: boolean): void {
  waiting.push({ text, shown });
  if (!speaking) speak();
}

/** Says something to whoever listens. */
export const announce = (text: string): void => say(text, false);

/** Says something and shows it for a few seconds. */
export const tell = (text: string): void => say(text, true);

const subscribe = (listener: () => void): (() => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};

/** The one place where things are said. */
export function Announcer() {
  const { text, shown, turn } = useSyncExternalStore(subscribe, () => said);
  return (
    <p
      role="status"
      data-announcer
      className={
        shown
          ? 'bg-ink text-sheet fixed bottom-4 left-1/2 z-50 max-w-[92vw] -translate-x-1/2 rounded-lg px-4 py-2.5 font-medium shadow-lg print:hidden'
          : 'sr-only'
      }
    >
      {text}
      {turn % 2 === 1 && '\u00a0'}
    </p>
  );
}
