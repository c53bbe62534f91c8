import { focusOnward } from '../ui/focus';

/** What is filled in on a line, in order: its boxes and, for each choice, the word the arrows begin at. */
const steps = (line: HTMLElement): HTMLElement[] =>
  [...line.querySelectorAll<HTMLElement>('input[data-entry]:not([data-skip]):not(:read-only), [data-choice]')].flatMap(
    (one) =>
      one.matches('input')
        ? one
        : (one.querySelector<HTMLElement>('[role="radio"][tabindex="0"]:not([aria-disabled])') ??
          one.querySelector<HTMLElement>('[role="radio"]:not([aria-disabled])') ??
          []),
  );

const isAnswered = (step: HTMLElement): boolean =>
  step instanceof HTMLInputElement
    ? step.value !== ''
    : step.closest('[data-choice]')?.querySelector('[aria-checked="true"]') !== null;

/** The first box of a line that has to be filled in; where it has only words to choose from, the first of them. */
export const firstBox = (line: HTMLElement): HTMLElement | null => {
  const all = steps(line);
  return all.find((step) => step.matches('input')) ?? all[0] ?? null;
};

/**
 * Moves to the next thing on the line that is not answered. Over a reading that stands it goes through all of them: what
 * is in them is of the reading before. False when there is none.
 */
export function nextBox(from: HTMLElement): boolean {
  const line = from.closest<HTMLElement>('[data-line]');
  if (!line) return false;
  const group = from.closest('[data-choice]');
  const after = steps(line).filter(
    (step) =>
      step !== from &&
      (group === null || step.closest('[data-choice]') !== group) &&
      (from.compareDocumentPosition(step) & Node.DOCUMENT_POSITION_FOLLOWING) !== 0,
  );
  const next = after.find((step) => line.dataset.standing === 'true' || !isAnswered(step));
  next?.focus();
  return next !== undefined;
}

/** Moves to the next line that still needs a reading; when none is left, to what the page says is next. */
export function nextLine(here: HTMLElement): void {
  const lines = [...document.querySelectorAll<HTMLElement>('[data-line]')];
  const at = lines.indexOf(here);
  const open = [...lines.slice(at + 1), ...lines.slice(0, at)].find((line) => line.dataset.open === 'true');
  if (open) firstBox(open)?.focus();
  else focusOnward();
}

/** How long a line that is not there yet is waited for, in milliseconds: its page may still be loading. */
const WAIT = 10_000;

let waiting: AbortController | undefined;

/**
 * Puts the hand on a line: scrolls to it and into its first box. A line of a page that is still coming is
 * waited for, until the hand does something else.
 */
export function focusLine(key: string): void {
  waiting?.abort();
  const still = new AbortController();
  const { signal } = still;
  const take = (): boolean => {
    const line = document.querySelector<HTMLElement>(`[data-line="${CSS.escape(key)}"]`);
    if (!line) return false;
    still.abort();
    line.scrollIntoView({ block: 'center' });
    firstBox(line)?.focus();
    return true;
  };
  if (take()) return;
  waiting = still;
  const watch = new MutationObserver(take);
  const end = (): void => still.abort();
  const timer = setTimeout(end, WAIT);
  signal.addEventListener('abort', () => {
    watch.disconnect();
    clearTimeout(timer);
  });
  for (const hand of ['keydown', 'pointerdown']) window.addEventListener(hand, end, { signal, capture: true });
  watch.observe(document.body, { childList: true, subtree: true });
}
