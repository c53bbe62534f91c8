import { ToggleGroup } from 'radix-ui';
import type { ReactNode } from 'react';

interface Option<T extends string> {
  value: T;
  label: string;
  /** Drawn above the words. */
  picture?: ReactNode;
}

interface Props<T extends string> {
  label: string;
  value: T | '';
  options: readonly Option<T>[];
  onChange: (value: T) => void;
  /** What is on record, shown while nothing new has been chosen. */
  standing?: string | undefined;
  small?: boolean;
  /** Lower, for a choice that is seldom made; the touch area stays. */
  slim?: boolean;
  invalid?: boolean;
  disabled?: boolean;
  /** What a second touch on the chosen word gives: nothing chosen. Without it the choice stays. */
  onClear?: () => void;
}

/** One of a few words, each a touch away. */
export function Choice<T extends string>({
  label,
  value,
  options,
  onChange,
  standing,
  small,
  slim,
  invalid,
  disabled,
  onClear,
}: Props<T>) {
  return (
    <ToggleGroup.Root
      type="single"
      aria-label={label}
      value={value}
      disabled={disabled}
      onValueChange={(next) => {
        if (next) onChange(next as T);
        else onClear?.();
      }}
      className={`flex flex-wrap gap-1 ${invalid ? 'rounded-lg outline-2 outline-bad' : ''}`}
    >
      {options.map((option) => (
        <ToggleGroup.Item
          key={option.value}
          value={option.value}
          className={`${slim ? 'relative min-h-8 px-2.5 text-note after:absolute after:-inset-y-1.5 after:inset-x-0' : 'min-h-11 px-3'} ${value === '' && standing === option.value ? 'border-ink bg-steel' : 'border-line-strong'} data-[state=on]:bg-ink data-[state=on]:text-sheet data-[state=on]:border-ink rounded-lg border-[1.5px] font-medium ${small ? 'text-note' : ''} ${option.picture ? 'flex flex-col items-center gap-0.5 py-1.5' : ''}`}
        >
          {option.picture}
          {option.label}
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
  onChange,
}: {
  label: string;
  values: readonly T[];
  options: readonly Option<T>[];
  onChange: (values: T[]) => void;
}) {
  return (
    <ToggleGroup.Root
      type="multiple"
      aria-label={label}
      value={[...values]}
      onValueChange={(next) => onChange(next as T[])}
      className="flex flex-wrap gap-1.5"
    >
      {options.map((option) => (
        <ToggleGroup.Item
          key={option.value}
          value={option.value}
          className="border-line-strong data-[state=on]:bg-ink data-[state=on]:text-sheet data-[state=on]:border-ink min-h-11 rounded-lg border-[1.5px] px-3 text-left leading-tight font-medium"
        >
          {option.label}
        </ToggleGroup.Item>
      ))}
    </ToggleGroup.Root>
  );
}
