import { useEffect, useRef, type RefObject } from 'react';
import { focusAsked, focusOnward, isFree } from './focus';

interface State {
  /** Changes when the part asks for something else. */
  step: unknown;
  /** What was pressed is still on its way: nothing is decided yet. */
  busy?: boolean;
  /** Nothing is left to be asked. */
  isDone?: boolean;
}

/**
 * Leads the hand through a part of a page: once what was pressed there has changed it, to what it asks next. With
 * nothing left it goes to what the tray says is next.
 */
export function useLed<T extends HTMLElement>({ step, busy = false, isDone = false }: State): RefObject<T | null> {
  const part = useRef<T>(null);
  const pressed = useRef<Element>(null);
  useEffect(() => {
    const stop = new AbortController();
    const press = ({ target }: Event): void => {
      pressed.current = target instanceof Element ? target.closest('button') : null;
    };
    part.current?.addEventListener('click', press, { signal: stop.signal, capture: true });
    return () => stop.abort();
  }, []);
  useEffect(() => {
    const from = pressed.current;
    if (!from || busy) return;
    // What it leads to may still be on its way: the next change looks again.
    if (!isDone && !focusAsked(part.current, from)) return;
    if (isDone && isFree(from)) focusOnward();
    pressed.current = null;
  }, [step, busy, isDone]);
  return part;
}
