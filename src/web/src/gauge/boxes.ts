/** The first box of a line that has to be filled in. */
export const firstBox = (line: HTMLElement): HTMLInputElement | null =>
  line.querySelector<HTMLInputElement>('input[data-entry]:not([data-skip]):not(:disabled)');

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
