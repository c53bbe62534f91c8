import { ToggleGroup } from 'radix-ui';

interface Option<T extends string> {
  value: T;
  label: string;
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
}: Props<T>) {
  return (
    <ToggleGroup.Root
      type="single"
      aria-label={label}
      value={value}
      disabled={disabled}
      onValueChange={(next) => {
        if (next) onChange(next as T);
      }}
      className={`flex flex-wrap gap-1 ${invalid ? 'rounded-lg outline-2 outline-bad' : ''}`}
    >
      {options.map((option) => (
        <ToggleGroup.Item
          key={option.value}
          value={option.value}
          className={`${slim ? 'relative min-h-8 px-2.5 text-[0.9375rem] after:absolute after:-inset-y-1.5 after:inset-x-0' : 'min-h-11 px-3'} ${value === '' && standing === option.value ? 'border-ink bg-steel' : 'border-line-strong'} data-[state=on]:bg-ink data-[state=on]:text-sheet data-[state=on]:border-ink rounded-lg border-[1.5px] font-[550] ${small ? 'text-[0.9375rem]' : ''}`}
        >
          {option.label}
        </ToggleGroup.Item>
      ))}
    </ToggleGroup.Root>
  );
}
