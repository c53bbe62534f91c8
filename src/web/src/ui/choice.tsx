import { ToggleGroup } from 'radix-ui';
import { useEffect, useRef, type KeyboardEvent, type ReactNode } from 'react';
import { useOffHere } from './button';

interface Option<T extends string> {
  value: T;
  label: string;
  /** Drawn with the words. */
  picture?: ReactNode;
}

interface Props<T extends string> {
  label: string;
  value: T | '';
  options: readonly Option<T>[];
  onChange: (value: T) => void;
  small?: boolean;
  /** Lower, for a choice that is seldom made; the touch area stays. */
  slim?: boolean;
  /** Pictures stand beside their words, not above them. */
  beside?: boolean;
  invalid?: boolean;
  disabled?: boolean;
  /** What a second touch on the chosen word gives: nothing chosen. Without it the choice stays. */
  onClear?: () => void;
  /** Where Enter leads once something is chosen. */
  onEnter?: (from: HTMLElement) => void;
  /** True when choosing records at once: arrows only move then, and Enter or Space chooses. */
  records?: boolean;
}

const ARROWS = ['ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown', 'Home', 'End'];

/**
 * One of a few words, each a touch away. Arrows choose, as in every group; Enter takes the word under the hand when
 * nothing is chosen yet and leads on.
 */
export function Choice<T extends string>({
  label,
  value,
  options,
  onChange,
  small,
  slim,
  beside,
  invalid,
  disabled = false,
  onClear,
  onEnter,
  records = false,
}: Props<T>) {
  const { off, why, sayWhy } = useOffHere(disabled);
  const byArrow = useRef(false);
  const onward = useRef(onEnter);
  useEffect(() => {
    onward.current = onEnter;
  });
  const onKey = (event: KeyboardEvent<HTMLDivElement>): void => {
    byArrow.current = ARROWS.includes(event.key) && !records;
    const item = event.target instanceof HTMLElement ? event.target.closest<HTMLElement>('[data-value]') : null;
    if (event.key !== 'Enter' || !onEnter || !item) return;
    event.preventDefault();
    if (off) {
      sayWhy();
      return;
    }
    if (value !== '') {
      onEnter(item);
      return;
    }
    // What was chosen just now is known by the next moment.
    onChange(item.dataset.value as T);
    setTimeout(() => onward.current?.(item));
  };
  return (
    <ToggleGroup.Root
      type="single"
      aria-label={label}
      aria-invalid={invalid || undefined}
      data-choice
      value={value}
      onKeyDownCapture={onKey}
      onValueChange={(next) => {
        if (off) sayWhy();
        else if (next) onChange(next as T);
        else onClear?.();
      }}
      className={`flex flex-wrap ${beside ? 'gap-2' : 'gap-1'} ${invalid ? 'rounded-lg outline-2 outline-bad' : ''}`}
    >
      {options.map((option) => (
        <ToggleGroup.Item
          key={option.value}
          value={option.value}
          data-value={option.value}
          aria-disabled={off || undefined}
          title={why}
          onFocus={() => {
            if (byArrow.current && !off && option.value !== value) onChange(option.value);
            byArrow.current = false;
          }}
          className={`${slim ? 'relative min-h-8 px-2.5 text-note after:absolute after:-inset-y-1.5 after:inset-x-0' : 'min-h-11 px-3'}
            border-line-strong data-[state=on]:bg-ink data-[state=on]:text-sheet data-[state=on]:border-ink rounded-lg
            border-[1.5px] font-medium aria-disabled:opacity-60 ${small ? 'text-note' : ''}
            ${option.picture ? `flex items-center ${beside ? 'min-h-16 gap-2 text-left leading-tight' : 'flex-col gap-0.5 py-1.5'}` : ''}`}
        >
          {option.picture}
          {beside ? <span className="max-w-36">{option.label}</span> : option.label}
        </ToggleGroup.Item>
      ))}
    </ToggleGroup.Root>
  );
}

/** Any of a few words, each a touch away and a touch back. */
export function Several<T extends string>({
  label,
  values,
  options,
  disabled = false,
  onChange,
}: {
  label: string;
  values: readonly T[];
  options: readonly Option<T>[];
  disabled?: boolean;
  onChange: (values: T[]) => void;
}) {
  const { off, why, sayWhy } = useOffHere(disabled);
  return (
    <ToggleGroup.Root
      type="multiple"
      aria-label={label}
      value={[...values]}
      onValueChange={(next) => {
        if (off) sayWhy();
        else onChange(next as T[]);
      }}
      className="flex flex-wrap gap-1.5"
    >
      {options.map((option) => (
        <ToggleGroup.Item
          key={option.value}
          value={option.value}
          aria-disabled={off || undefined}
          title={why}
          className={`border-line-strong data-[state=on]:bg-ink data-[state=on]:text-sheet data-[state=on]:border-ink min-h-11
            rounded-lg border-[1.5px] px-3 text-left aria-disabled:opacity-60 leading-tight font-medium`}
        >
          {option.label}
        </ToggleGroup.Item>
      ))}
    </ToggleGroup.Root>
  );
}
