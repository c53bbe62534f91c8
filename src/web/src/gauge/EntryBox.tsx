import type { KeyboardEvent } from 'react';
import type { EntryField } from '../api/client';
import { useUnits } from '../session/session';
import { useOffHere } from '../ui/button';
import { sign } from '../units/format';

interface Props {
  field: EntryField;
  /** What and where; its unit is added. */
  label: string;
  value: string;
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
  onLeave?: () => void;
}

/** A number that was typed with its unit: what a bare number would be in is not said beside it. */
const ownUnit = /[a-z"#°]/i;

/** One large box for one number: takes any unit, says which it takes a bare number for. */
export function EntryBox({
  field,
  label,
  value,
  problem,
  caption = field.label,
  skip = false,
  bare = false,
  disabled = false,
  describedBy,
  onChange,
  onEnter,
  onEscape,
  onLeave,
  onPaste,
}: Props) {
  const units = useUnits();
  const unit = sign(field.dimension, units);
  const { off, why, sayWhy } = useOffHere(disabled);
  const onKey = (event: KeyboardEvent<HTMLInputElement>): void => {
    if (off) {
      if (event.key === 'Enter' || event.key.length === 1) sayWhy();
    } else if (event.key === 'Enter') {
      event.preventDefault();
      onEnter(event.currentTarget);
    } else if (event.key === 'Escape') {
      onEscape();
    }
  };
  return (
    <label
      className={`border-line-strong bg-sheet has-aria-invalid:border-bad has-aria-invalid:bg-bad-soft
        focus-within:border-dawn has-aria-disabled:opacity-60 grid min-h-13 min-w-0 cursor-text rounded-lg
        border-[1.5px] pt-1 pb-0.5 focus-within:outline-3
        focus-within:outline-[color-mix(in_srgb,var(--dawn)_45%,transparent)] ${
          field.dimension === 'count' ? 'w-18 flex-none px-1.25' : 'max-w-32 flex-1 basis-17 px-2'
        }`}
    >
      <input
        data-entry={field.name}
        data-skip={skip || undefined}
        aria-label={unit === '' || field.label.startsWith(unit) ? label : `${label}, ${unit}`}
        aria-invalid={problem ? true : undefined}
        aria-describedby={describedBy}
        title={problem ?? why}
        inputMode={field.dimension === 'length' ? 'text' : 'decimal'}
        autoComplete="off"
        spellCheck={false}
        readOnly={off}
        aria-disabled={off || undefined}
        value={value}
        onBlur={onLeave}
        onChange={(event) => onChange(event.target.value)}
        onKeyDown={onKey}
        onPaste={(event) => {
          if (!off && onPaste?.(event.clipboardData.getData('text'))) event.preventDefault();
        }}
        onFocus={(event) => event.currentTarget.select()}
        className="num w-full min-w-0 bg-transparent text-title leading-7 font-bold outline-none"
      />
      <span aria-hidden className="text-mute flex justify-between gap-1 text-small leading-4">
        <span className="whitespace-nowrap">{caption}</span>
        {!bare && unit !== caption && field.dimension !== 'count' && !ownUnit.test(value) && <span>{unit}</span>}
      </span>
    </label>
  );
}
