import type { KeyboardEvent } from 'react';
import type { EntryField } from '../api/client';
import { useUnits } from '../session/session';
import { sign } from '../units/format';

interface Props {
  field: EntryField;
  label: string;
  value: string;
  placeholder?: string;
  problem?: string | undefined;
  /** What stands under the number; the field's own name when not given. */
  caption?: string;
  /** Leaves the unit out where there is no room; the line's target says it. */
  bare?: boolean;
  /** True when Enter passes it by: it may stay empty. */
  skip?: boolean;
  /** Takes a pasted table; true when it was one. */
  onPaste?: (text: string) => boolean;
  disabled?: boolean;
  describedBy?: string | undefined;
  onChange: (text: string) => void;
  onEnter: (from: HTMLElement) => void;
  onEscape: () => void;
}

/** One large box for one number: takes any unit, says which it takes a bare number for. */
export function EntryBox({
  field,
  label,
  value,
  placeholder,
  problem,
  caption = field.label,
  skip = false,
  bare = false,
  disabled,
  describedBy,
  onChange,
  onEnter,
  onEscape,
  onPaste,
}: Props) {
  const units = useUnits();
  const unit = sign(field.dimension, units);
  const onKey = (event: KeyboardEvent<HTMLInputElement>): void => {
    if (event.key === 'Enter') {
      event.preventDefault();
      onEnter(event.currentTarget);
    } else if (event.key === 'Escape') {
      onEscape();
    }
  };
  return (
    <label
      className={`border-line-strong bg-sheet has-aria-invalid:border-bad has-aria-invalid:bg-bad-soft focus-within:border-dawn has-disabled:opacity-60 grid min-h-13 min-w-0 cursor-text rounded-lg border-[1.5px] px-2 pt-1 pb-0.5 focus-within:outline-3 focus-within:outline-[color-mix(in_srgb,var(--dawn)_45%,transparent)] ${
        field.dimension === 'count' ? 'w-15 flex-none' : 'max-w-32 flex-1 basis-18'
      }`}
    >
      <input
        data-entry={field.name}
        data-skip={skip || undefined}
        aria-label={label}
        aria-invalid={problem ? true : undefined}
        aria-describedby={describedBy}
        title={problem}
        inputMode={field.dimension === 'length' ? 'text' : 'decimal'}
        autoComplete="off"
        spellCheck={false}
        disabled={disabled}
        value={value}
        placeholder={placeholder}
        onChange={(event) => onChange(event.target.value)}
        onKeyDown={onKey}
        onPaste={(event) => {
          if (onPaste?.(event.clipboardData.getData('text'))) event.preventDefault();
        }}
        onFocus={(event) => event.currentTarget.select()}
        className="num placeholder:text-mute w-full min-w-0 bg-transparent text-title leading-7 font-bold outline-none placeholder:font-normal"
      />
      <span aria-hidden className="text-mute flex justify-between gap-1 text-small leading-4">
        <span className="whitespace-nowrap">{caption}</span>
        {!bare && unit !== caption && field.dimension !== 'count' && <span>{unit}</span>}
      </span>
    </label>
  );
}
