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
  disabled,
  describedBy,
  onChange,
  onEnter,
  onEscape,
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
    <label className="grid min-w-0 flex-1 basis-20 gap-0.5">
      <span className="text-mute flex justify-between gap-1 text-[0.875rem] leading-tight">
        <span>{field.label}</span>
        {unit && unit !== field.label && <span>{unit}</span>}
      </span>
      <input
        data-entry={field.name}
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
        onFocus={(event) => event.currentTarget.select()}
        className="num border-line-strong bg-sheet placeholder:text-mute aria-invalid:border-bad aria-invalid:bg-bad-soft focus:border-dawn min-h-12 w-full min-w-0 rounded-lg border-[1.5px] px-2 text-[1.3125rem] font-[600] placeholder:font-[400] focus:outline-3 focus:outline-offset-0 disabled:opacity-60"
      />
    </label>
  );
}
