import { Plus, X } from 'lucide-react';
import type { FaultWords, OfferedCause, ToldBy, TriedFix, TriedOutcome } from '../api/client';
import { choices, toldByWord, triedOutcomeWord } from '../shell/words';
import { Button } from '../ui/button';
import { SelectField, TextField } from '../ui/field';
import { localToday } from '../units/format';

export interface Told {
  tried: TriedFix[];
  offered: OfferedCause[];
}

interface Props {
  causes: FaultWords['causes'];
  value: Told;
  onChange: (value: Told) => void;
  /** Only one of the two lists, where the other stands elsewhere. */
  only?: 'tried' | 'offered';
}

/** What was tried before it came in, and what somebody says is wrong. A row counts once it says what. */
export function ToldEditor({ causes, value, onChange, only }: Props) {
  const tried = (i: number, change: Partial<TriedFix>): void =>
    onChange({ ...value, tried: value.tried.map((row, at) => (at === i ? { ...row, ...change } : row)) });
  const offered = (i: number, change: Partial<OfferedCause>): void =>
    onChange({ ...value, offered: value.offered.map((row, at) => (at === i ? { ...row, ...change } : row)) });
  return (
    <div className="grid gap-3">
      {only !== 'offered' && (
        <div className="grid gap-2">
          {value.tried.map((row, i) => (
            <fieldset
              key={i}
              className="border-line grid gap-2 border-t pt-2 sm:grid-cols-[minmax(0,2fr)_minmax(0,1fr)]"
            >
              <legend className="sr-only">Tried before, {i + 1}</legend>
              <SelectField
                label="What was done"
                value={row.causeId}
                onChange={(event) => tried(i, { causeId: event.target.value })}
              >
                <option value="">Choose</option>
                {causes.map((cause) => (
                  <option key={cause.id} value={cause.id}>
                    {cause.fix} ({cause.label.toLowerCase()})
                  </option>
                ))}
              </SelectField>
              <By value={row.by} onChange={(by) => tried(i, { by })} />
              <div className="grid gap-2 sm:col-span-2 sm:grid-cols-[1fr_1fr_auto]">
                <SelectField
                  label="What came of it"
                  value={row.outcome}
                  onChange={(event) => tried(i, { outcome: event.target.value as TriedOutcome })}
                >
                  {choices(triedOutcomeWord).map((one) => (
                    <option key={one.value} value={one.value}>
                      {one.label}
                    </option>
                  ))}
                </SelectField>
                <TextField
                  label="When"
                  type="date"
                  max={localToday()}
                  className="num"
                  value={row.on ?? ''}
                  onChange={(event) => tried(i, { on: event.target.value || null })}
                />
                <Remove
                  what={`Take out what was tried, ${i + 1}`}
                  onClick={() => onChange({ ...value, tried: value.tried.filter((_, at) => at !== i) })}
                />
              </div>
            </fieldset>
          ))}
          <Add
            onClick={() =>
              onChange({
                ...value,
                tried: [...value.tried, { causeId: '', by: 'owner', on: null, outcome: 'notSaid' }],
              })
            }
          >
            {value.tried.length === 0 ? 'Something was tried' : 'Something else was tried'}
          </Add>
        </div>
      )}
      {only !== 'tried' && (
        <div className="grid gap-2">
          {value.offered.map((row, i) => (
            <fieldset
              key={i}
              className="border-line grid gap-2 border-t pt-2 sm:grid-cols-[minmax(0,2fr)_minmax(0,1fr)_auto]"
            >
              <legend className="sr-only">Said to be wrong, {i + 1}</legend>
              <SelectField
                label="What is said to be wrong"
                value={row.causeId}
                onChange={(event) => offered(i, { causeId: event.target.value })}
              >
                <option value="">Choose</option>
                {causes.map((cause) => (
                  <option key={cause.id} value={cause.id}>
                    {cause.label}
                  </option>
                ))}
              </SelectField>
              <By value={row.by} onChange={(by) => offered(i, { by })} />
              <Remove
                what={`Take out what is said, ${i + 1}`}
                onClick={() => onChange({ ...value, offered: value.offered.filter((_, at) => at !== i) })}
              />
            </fieldset>
          ))}
          <Add onClick={() => onChange({ ...value, offered: [...value.offered, { causeId: '', by: 'owner' }] })}>
            {value.offered.length === 0 ? 'Somebody says what is wrong' : 'Somebody says something else'}
          </Add>
        </div>
      )}
    </div>
  );
}

/** What of it says something. */
export const toldOf = (told: Told): Told => ({
  tried: told.tried.filter((row) => row.causeId !== ''),
  offered: told.offered.filter((row) => row.causeId !== ''),
});

function By({ value, onChange }: { value: ToldBy; onChange: (by: ToldBy) => void }) {
  return (
    <SelectField label="Who" value={value} onChange={(event) => onChange(event.target.value as ToldBy)}>
      {choices(toldByWord).map((one) => (
        <option key={one.value} value={one.value}>
          {one.label}
        </option>
      ))}
    </SelectField>
  );
}

function Add({ onClick, children }: { onClick: () => void; children: string }) {
  return (
    <p>
      <Button look="quiet" onClick={onClick}>
        <Plus aria-hidden size={18} /> {children}
      </Button>
    </p>
  );
}

function Remove({ what, onClick }: { what: string; onClick: () => void }) {
  return (
    <span className="self-end">
      <Button look="quiet" aria-label={what} onClick={onClick}>
        <X aria-hidden size={18} />
      </Button>
    </span>
  );
}
