import type { Elsewhere, Origin } from '../../api/client';
import { originWord } from '../../shell/words';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { TextField } from '../../ui/field';

/** What is typed about a new part from elsewhere, as it is kept. */
export interface Got {
  origin: Origin | '';
  what: string;
  fromWhom: string;
  price: string;
  match: 'same' | 'near' | '';
}

export const nothingGot: Got = { origin: '', what: '', fromWhom: '', price: '', match: '' };

const origins = Object.entries(originWord) as [Origin, string][];

/** What was typed as it is recorded; null while it is not said where it came from. A price that is no number is sent as one that is refused. */
export const gotten = ({ origin, what, fromWhom, price }: Got): Elsewhere | null => {
  if (origin === '') return null;
  const amount = Number(price.trim().replace(',', '.'));
  return {
    origin,
    what,
    fromWhom: fromWhom.trim() || null,
    price: price.trim() === '' ? null : Number.isFinite(amount) ? amount : -1,
  };
};

interface Props {
  part: string;
  currency: string;
  value: Got;
  errors: Record<string, string[]>;
  onChange: (got: Got) => void;
  onTake: () => void;
}

/** A new part that no kit and no shelf had: bought, brought, off a roll, out of a drawer. */
export function FromElsewhere({ part, currency, value, errors, onChange, onTake }: Props) {
  const at = (field: string): string | undefined => errors[`note.elsewhere.${field}`]?.[0];
  return (
    <div role="group" aria-label={`From elsewhere: ${part}`} className="border-line grid gap-2 border-t pt-2">
      <p className="font-strong">Where it came from</p>
      <Choice
        label={`Where the new one came from: ${part}`}
        value={value.origin}
        options={origins.map(([origin, label]) => ({ value: origin, label }))}
        onChange={(origin) => onChange({ ...value, origin })}
      />
      <TextField
        label="What it is"
        hint="What stands on it, its size, what it is made of"
        value={value.what}
        problem={at('what')}
        onChange={(event) => onChange({ ...value, what: event.target.value })}
      />
      <div className="flex flex-wrap gap-2">
        <div className="min-w-0 flex-1 basis-40">
          <TextField
            label="From whom"
            value={value.fromWhom}
            problem={at('fromWhom')}
            onChange={(event) => onChange({ ...value, fromWhom: event.target.value })}
          />
        </div>
        <div className="basis-32">
          <TextField
            label={`Price, ${currency}`}
            inputMode="decimal"
            className="num"
            value={value.price}
            problem={at('price')}
            onChange={(event) => onChange({ ...value, price: event.target.value })}
          />
        </div>
      </div>
      <p className="font-strong">Beside the old one</p>
      <Choice
        label={`Beside the old one: ${part}`}
        value={value.match}
        options={[
          { value: 'same', label: 'The same' },
          { value: 'near', label: 'A near match' },
        ]}
        onChange={(match) => onChange({ ...value, match })}
      />
      <Button look="hands" className="justify-self-start" disabled={value.origin === ''} onClick={onTake}>
        It is in, from elsewhere
      </Button>
    </div>
  );
}
