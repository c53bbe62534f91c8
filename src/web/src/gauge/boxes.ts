/** The first box of a line that has to be filled in. */
export const firstBox = (line: HTMLElement): HTMLInputElement | null =>
  line.querySelector<HTMLInputElement>('input[data-entry]:not([data-skip]):not(:disabled)');

/** Puts the hand on a line: scrolls to it and into its first box. */
export function focusLine(key: string): void {
  const target = document.querySelector<HTMLElement>(`[data-line="${CSS.escape(key)}"]`);
  target?.scrollIntoView({ block: 'center' });
  if (target) firstBox(target)?.focus();
}
