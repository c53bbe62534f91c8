import { Minus, Plus } from 'lucide-react';
import { turns } from '../units/format';

interface Props {
  label: string;
  /** Eighths of a turn; null while nothing has been said. */
  value: number | null;
  /** Most eighths that are taken. */
  most: number;
  onChange: (eighths: number) => void;
}

/** Turns from the seat in quarters and eighths, counted up and down by a touch. */
export function TurnsChoice({ label, value, most, onChange }: Props) {
  const step = (by: number): void => onChange(Math.max(0, Math.min(most, (value ?? 0) + by)));
  return (
    <div role="group" aria-label={label} className="flex flex-wrap items-center gap-1 sm:gap-1.5">
      <Step label="1 turn less" onClick={() => step(-8)}>
        <Minus aria-hidden size={16} />1
      </Step>
      <Step label="⅛ turn less" onClick={() => step(-1)}>
        <Minus aria-hidden size={16} />⅛
      </Step>
      <output className="num min-w-10 text-center sm:min-w-16 text-figure font-heavy">
        {value === null ? '–' : turns(value)}
      </output>
      <Step label="⅛ turn more" onClick={() => step(1)}>
        <Plus aria-hidden size={16} />⅛
      </Step>
      <Step label="¼ turn more" onClick={() => step(2)}>
        <Plus aria-hidden size={16} />¼
      </Step>
      <Step label="1 turn more" onClick={() => step(8)}>
        <Plus aria-hidden size={16} />1
      </Step>
    </div>
  );
}

function Step({ label, onClick, children }: { label: string; onClick: () => void; children: React.ReactNode }) {
  return (
    <button
      type="button"
      aria-label={label}
      onClick={onClick}
      className={`border-line-strong hover:border-ink inline-flex min-h-11 min-w-11 items-center sm:min-w-12 justify-center
        rounded-lg border-[1.5px] text-lead font-strong`}
    >
      {children}
    </button>
  );
}
