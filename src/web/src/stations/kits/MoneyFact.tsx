import { useState } from 'react';
import { Button } from '../../ui/button';
import { TextField } from '../../ui/field';
import { money } from '../../units/format';

interface Props {
  label: string;
  value: number | null;
  currency: string;
  mayChange: boolean;
  onChange: (amount: number) => Promise<boolean>;
}

/** An amount that stands on the tray; touched, it can be typed anew. */
export function MoneyFact({ label, value, currency, mayChange, onChange }: Props) {
  const [typed, setTyped] = useState<string | null>(null);
  const amount = Number((typed ?? '').replace(',', '.'));
  const wrong = typed !== null && (!Number.isFinite(amount) || amount < 0);
  if (typed === null)
    return (
      <p className="inline-flex min-h-11 items-center gap-2">
        <span className="text-mute">{label}</span>
        {value === null ? (
          <span className="font-strong">not known</span>
        ) : (
          <span className="num text-part font-bold">{money(value, currency)}</span>
        )}
        {mayChange && (
          <button
            type="button"
            className="min-h-11 px-1.5 underline underline-offset-4"
            aria-label={`${value === null ? 'Enter it' : 'Change'}: ${label}`}
            onClick={() => setTyped(value === null ? '' : String(value))}
          >
            {value === null ? 'Enter it' : 'Change'}
          </button>
        )}
      </p>
    );
  return (
    <form
      className="flex items-end gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (!wrong) void onChange(amount).then((done) => done && setTyped(null));
      }}
    >
      <TextField
        label={label}
        problem={wrong ? 'Give an amount such as 45 or 45.50; empty when it is not known.' : undefined}
        className="num max-w-32"
        inputMode="decimal"
        autoFocus
        value={typed}
        onChange={(e) => setTyped(e.target.value)}
      />
      <Button type="submit" disabled={wrong}>
        Keep it
      </Button>
      <Button look="quiet" onClick={() => setTyped(null)}>
        Leave it
      </Button>
    </form>
  );
}
