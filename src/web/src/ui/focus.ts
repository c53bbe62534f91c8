/**
 * Keeps the focus where the hand is. Whatever had it may go away with what was done: a button with the question it
 * answered, a page with the tray that was opened. Then it goes to what is pressed next, never to the top of the page.
 */

/** Pieces of a page from small to large: what is next is looked for in the smallest first. */
const PIECES = '[data-line], li, tr, form, [role="dialog"], article, section, aside, main';
const PRESSABLE =
  'a[href], button:not(:disabled), input:not(:disabled), select:not(:disabled), textarea:not(:disabled), summary, [tabindex="0"]';
/** A piece so small that whatever is left in it is nearer than the warm button of what is around it. */
const SMALL = '[data-line], li, tr';
const PRESSED_MS = 3_000;

interface Held {
  element: HTMLElement;
  /** What it stood in, from the inside out. */
  within: HTMLElement[];
  path: string;
}

let held: Held | undefined;
let outside: HTMLElement | undefined;
let lent: Element | null = null;
/** What came last: a key that does something, a press, or typing. */
let last: { what: 'key' | 'press' | 'typing'; at: number } = { what: 'typing', at: 0 };
let wantsHeading = false;
let wantsNext = false;

const isHeading = (element: Element): boolean => element.matches('h1, h2, h3, #main');

/** Whether the focus is on nothing that is pressed or typed in. */
export const isNowhere = (): boolean => {
  const at = document.activeElement;
  return at === null || at === document.body || isHeading(at);
};

/** Whether the hand has not gone anywhere by itself: it may be led on. */
export const isFree = (from?: Element | null): boolean =>
  isNowhere() || document.activeElement === from || document.activeElement === lent;

/** What had the focus last outside of windows and menus: where it goes back to when one closes. */
export const opener = (): HTMLElement | undefined => outside;

const isSeen = (element: HTMLElement): boolean =>
  element.isConnected && element.getClientRects().length > 0 && !element.closest('[aria-hidden="true"], [inert]');

const canTake = (element: HTMLElement): boolean =>
  element.tabIndex >= 0 && isSeen(element) && element.getAttribute('aria-disabled') !== 'true';

/** A box opens a keyboard on the screen under the fingers of whoever pressed something: only keys lead into one. */
const suits = (element: HTMLElement): boolean =>
  last.what === 'key' || !element.matches('input:not([type="checkbox"]):not([type="radio"]), textarea');

function pressables(piece: HTMLElement): HTMLElement[] {
  return [...piece.querySelectorAll<HTMLElement>(PRESSABLE)].filter((one) => canTake(one) && suits(one));
}

function lend(element: HTMLElement, stays = isHeading(element)): void {
  lent = element;
  if (element.tabIndex < 0 && !element.hasAttribute('tabindex')) element.tabIndex = -1;
  element.focus({ preventScroll: stays });
}

/** Puts the focus on the page's heading, now or as soon as there is one. */
function focusHeading(): void {
  const heading = document.querySelector<HTMLElement>('#main h1');
  wantsHeading = heading === null;
  const to = heading ?? document.getElementById('main');
  if (to) lend(to);
}

/** Marks what the page says is to be done next, where that is not its first warm button. */
const NEXT = '[data-next] [data-warm]';

/** Whether another page has been asked for while the one before is still drawn. */
const isLeaving = (main: HTMLElement | null): boolean =>
  main?.dataset.path !== undefined && decodeURI(main.dataset.path) !== decodeURI(window.location.pathname);

/** Puts the focus on what is to be done next on this page: a line that is open, else the warm button. */
export function focusNext(onward = true): boolean {
  const main = document.getElementById('main');
  if (isLeaving(main)) {
    wantsNext = true;
    return false;
  }
  const open = main?.querySelector<HTMLElement>('[data-line][data-open="true"]');
  const box = open && pressables(open).find((one) => one.matches('input, [role="radio"]'));
  const warm = [...(main?.querySelectorAll<HTMLElement>('[data-warm]') ?? [])].filter(canTake);
  const here = (one: HTMLElement): boolean =>
    one instanceof HTMLAnchorElement && window.location.href.startsWith(one.href);
  // What is still on its way to this page comes before another page.
  const loads = main?.querySelector('[aria-busy="true"]') != null;
  const next =
    box ??
    askedIn(main) ??
    warm.find((one) => !one.closest('[data-next]')) ??
    (onward && !loads ? warm.find((one) => !here(one)) : undefined);
  // It leads to where this is, and what is to be done here is not there yet.
  wantsNext = next === undefined && warm.length > 0;
  next?.focus();
  return next !== undefined;
}

/**
 * Leads the hand to what a form asks next: the first question that is marked as open, else its warm button. A hand that
 * went somewhere else by itself is left there, unless it comes from the place that is given. False when it stays.
 */
export function focusAsked(form: HTMLElement | null, from?: Element | null): boolean {
  if (!form || !isFree(from)) return false;
  const next = askedIn(form) ?? pressables(form).find((one) => one.matches('[data-warm]'));
  // Only keys scroll to it: whoever opened the page by a touch or a link begins at its top.
  if (next) lend(next, last.what !== 'key');
  return next !== undefined;
}

/** The first open question of a part of a page: what answers it, or the first word of its group. */
function askedIn(part: HTMLElement | null): HTMLElement | undefined {
  const asked = part?.querySelector<HTMLElement>('[data-asked]');
  if (!asked || asked.matches(PRESSABLE)) return asked ?? undefined;
  return asked.querySelector<HTMLElement>('[data-radix-collection-item]') ?? pressables(asked)[0];
}

/** Puts the focus on what is to be done next on a page that is just being opened, as soon as it is there. */
export function focusNextThere(): void {
  const heading = document.querySelector<HTMLElement>('#main h1');
  if (heading) lend(heading);
  wantsNext = true;
}

/** Puts the focus on what the page says is next, wherever that is: the bench card's button. */
export function focusOnward(): void {
  const next = document.querySelector<HTMLElement>(NEXT);
  if (next) next.focus();
  else focusHeading();
}

const isAfter = (element: Node, spot: Node): boolean =>
  (spot.compareDocumentPosition(element) & Node.DOCUMENT_POSITION_FOLLOWING) !== 0;

/** What is pressed next in a piece: what is left of a small one; else the one warm button; else what stood behind. */
function nextIn(piece: HTMLElement, before: Node | null): HTMLElement | undefined {
  const all = pressables(piece);
  const warm = all.find((one) => one.matches('[data-warm]'));
  const behind = before && before.isConnected ? all.find((one) => isAfter(one, before)) : all[0];
  return piece.matches(SMALL) ? (behind ?? all[0]) : (warm ?? behind);
}

/** The focus has gone with what had it. */
function goOn({ within, path }: Held, before: Node | null): void {
  if (path !== window.location.pathname) {
    focusHeading();
    return;
  }
  for (const piece of within) {
    if (!piece.isConnected || !piece.matches(PIECES)) continue;
    const next = piece.matches('main') ? piece.querySelector<HTMLElement>('[data-warm]') : nextIn(piece, before);
    if (next && canTake(next)) {
      lend(next);
      return;
    }
  }
  focusHeading();
}

function look(records: readonly MutationRecord[]): void {
  const at = document.activeElement;
  if (wantsNext && isFree() && records.some((record) => record.addedNodes.length > 0) && focusNext(false)) {
    wantsNext = false;
    return;
  }
  if (wantsHeading && (at === null || at === document.body || at.id === 'main')) {
    if (document.querySelector('#main h1')) focusHeading();
    return;
  }
  if (!held || (at !== null && at !== document.body)) return;
  const { element } = held;
  if (isSeen(element) && !(element as HTMLButtonElement).disabled) return;
  const went = records.find((record) => [...record.removedNodes].some((node) => node.contains(element)));
  goOn(held, went?.previousSibling ?? (element.isConnected ? element : (went?.target ?? null)));
}

/** The first box that a press has shown to be wrong. */
function lookAtWrong(records: readonly MutationRecord[]): void {
  if (last.what === 'typing' || performance.now() - last.at > PRESSED_MS || !held) return;
  const wrong = records
    .map((record) => record.target)
    .filter((one): one is HTMLElement => one instanceof HTMLElement && one.getAttribute('aria-invalid') === 'true');
  const around = held.within.find((piece) => piece.isConnected && wrong.some((one) => piece.contains(one)));
  const first = around?.querySelector<HTMLElement>('[aria-invalid="true"]');
  if (!first || around?.matches('body, html')) return;
  const box = first.matches(PRESSABLE) ? first : first.querySelector<HTMLElement>(PRESSABLE);
  box?.focus();
}

/** Begins to keep the focus; the answer ends it. */
export function keepFocus(): () => void {
  const stop = new AbortController();
  const { signal } = stop;
  const took = (event: FocusEvent): void => {
    const element = event.target;
    if (!(element instanceof HTMLElement) && !(element instanceof SVGElement)) return;
    if (element !== lent) {
      lent = null;
      wantsNext = false;
      wantsHeading = false;
    }
    const within: HTMLElement[] = [];
    for (let up = element.parentElement; up; up = up.parentElement) within.push(up);
    held = { element: element as HTMLElement, within, path: window.location.pathname };
    if (!element.closest('[role="dialog"], [role="menu"], [role="listbox"]')) outside = element as HTMLElement;
  };
  const pressed = (event: Event): void => {
    wantsNext = false;
    // On a heading Enter goes to what is to be done.
    if (event instanceof KeyboardEvent && event.key === 'Enter' && !event.repeat && document.activeElement) {
      const at = document.activeElement;
      if (isHeading(at) && !document.querySelector('[role="dialog"]')) {
        last = { what: 'key', at: performance.now() };
        if (focusNext()) event.preventDefault();
        return;
      }
    }
    // Esc leaves a line on which nothing was typed: single keys are heard again on the heading.
    if (event instanceof KeyboardEvent && event.key === 'Escape') {
      const line = document.activeElement?.closest<HTMLElement>('[data-line]');
      if (line && line.dataset.typed !== 'true') focusHeading();
    }
    const key = event instanceof KeyboardEvent ? event.key : '';
    const what = key === '' ? 'press' : key.length === 1 && key !== ' ' ? 'typing' : 'key';
    last = { what, at: performance.now() };
  };
  document.addEventListener('focusin', took, { signal, capture: true });
  document.addEventListener('keydown', pressed, { signal, capture: true });
  document.addEventListener('pointerdown', pressed, { signal, capture: true });
  const watch = new MutationObserver((records) => {
    look(records);
    lookAtWrong(records);
  });
  watch.observe(document.body, {
    childList: true,
    subtree: true,
    attributes: true,
    attributeFilter: ['disabled', 'hidden', 'aria-invalid'],
  });
  signal.addEventListener('abort', () => watch.disconnect());
  // A page that is opened begins at its heading, unless it has a box to begin in.
  if (isNowhere()) focusHeading();
  return () => stop.abort();
}
