import { useState } from 'react';
import { problemOf, type Problem, type UnitSystem } from '../api/client';
import { Button } from '../ui/button';
import { Choice } from '../ui/choice';
import { PasswordField, SelectField, TextField } from '../ui/field';
import { Notice } from '../ui/states';
import { Door } from './Door';
import { MoveHere } from './MoveHere';
import { useSession } from './session';

const zones = (): string[] => ['UTC', ...Intl.supportedValuesOf('timeZone')];

/** The first page of a shop that has nobody in it: its first lead, and the little it has to know to begin. */
export function FirstStartPage() {
  const { setUp } = useSession();
  const [draft, setDraft] = useState({
    code: '',
    shopName: '',
    displayName: '',
    userName: '',
    password: '',
    currency: 'EUR',
    labour: '',
    timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone,
  });
  const [units, setUnits] = useState<UnitSystem>('metric');
  const [problem, setProblem] = useState<Problem | null>(null);
  const [busy, setBusy] = useState(false);
  const [moving, setMoving] = useState(false);
  const error = (field: string): string | undefined => problem?.errors[field]?.[0];
  const box = (field: keyof typeof draft) => ({
    value: draft[field],
    problem: error(field),
    onChange: (event: { target: { value: string } }) => setDraft({ ...draft, [field]: event.target.value }),
  });
  if (moving)
    return (
      <Door wide>
        <MoveHere onBack={() => setMoving(false)} />
      </Door>
    );
  return (
    <Door wide>
      <form
        className="grid gap-4 p-7 pt-5"
        onSubmit={(event) => {
          event.preventDefault();
          setBusy(true);
          setProblem(null);
          setUp({ ...draft, currency: draft.currency.toUpperCase(), units }).catch((said: unknown) => {
            setProblem(problemOf(said));
            setBusy(false);
          });
        }}
      >
        <div>
          <h1 className="text-number leading-tight font-heavy">Blue Dawn</h1>
          <p className="text-mute">
            A shop of its own. You are its first lead; everybody else is added later, on the page People.
          </p>
        </div>
        {problem && Object.keys(problem.errors).length === 0 && <Notice title={problem.title}>{problem.detail}</Notice>}
        <TextField
          label="Code from the terminal"
          hint="It stands where Blue Dawn was started, and proves that you are at that machine."
          className="num"
          autoFocus
          required
          {...box('code')}
        />
        <div className="grid gap-4 sm:grid-cols-2">
          <TextField label="The shop’s name" required {...box('shopName')} />
          <SelectField
            label="Time zone"
            problem={error('timeZone')}
            value={draft.timeZone}
            onChange={(event) => setDraft({ ...draft, timeZone: event.target.value })}
          >
            {zones().map((zone) => (
              <option key={zone}>{zone}</option>
            ))}
          </SelectField>
          <TextField label="Currency" hint="Three letters" maxLength={3} required {...box('currency')} />
          <TextField label="An hour at the bench costs" inputMode="decimal" required {...box('labour')} />
          <TextField label="Your name in the book" autoComplete="name" required {...box('displayName')} />
          <TextField label="Name you sign in with" autoComplete="username" required {...box('userName')} />
        </div>
        <PasswordField
          label="Password"
          hint="At least 12 characters; a few words one after the other."
          autoComplete="new-password"
          required
          {...box('password')}
        />
        <div className="grid gap-1">
          <span className="font-strong">Units you read and type in</span>
          <Choice
            label="Units"
            value={units}
            options={[
              { value: 'metric', label: 'mm, kPa, g' },
              { value: 'inch', label: 'in, psi, oz' },
            ]}
            onChange={setUnits}
          />
        </div>
        <div className="flex flex-wrap gap-3">
          <Button type="submit" look="hands" disabled={busy}>
            Begin
          </Button>
          <Button look="quiet" onClick={() => setMoving(true)}>
            Move a shop here from its archive
          </Button>
        </div>
      </form>
    </Door>
  );
}
