import { useQueryClient } from '@tanstack/react-query';
import type { StoryChange, Tray } from '../../api/client';
import { api, ask } from '../../api/client';
import { useWrite } from '../../api/useWrite';
import { useKept } from '../../outbox/drafts';
import { usePerson } from '../../session/session';
import { keys } from '../../api/keys';
import { choices, fuelKindWord, oilLevelWord, whoseWord } from '../../shell/words';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { TextField } from '../../ui/field';
import { Notice } from '../../ui/states';

interface Draft extends Pick<StoryChange, 'whose' | 'fuelKind' | 'oilThen' | 'version'> {
  failsAfterMin: string;
  tankThen: string;
  tankNow: string;
  ageYears: string;
  hours: string;
}

const text = (value: number | null | undefined, of = 1): string => (value == null ? '' : (value / of).toString());
const amount = (typed: string): number | null => {
  const value = Number(typed.trim().replace(',', '.'));
  return typed.trim() === '' || !Number.isFinite(value) ? null : value;
};
const numbers = ['failsAfterMin', 'tankThen', 'tankNow', 'ageYears', 'hours'] as const;

/** What was told at check-in and stands on no list of the trace, put right. */
export function StoryForm({ tray, onClose }: { tray: Tray; onClose: () => void }) {
  const { story } = tray;
  const queries = useQueryClient();
  const [draft, keep, clear] = useKept<Draft>(`${usePerson().id}:${tray.number}:story`, {
    version: tray.version,
    whose: story?.whose ?? 'notSaid',
    fuelKind: story?.fuelKind ?? 'notSaid',
    oilThen: story?.oilThen ?? 'notSaid',
    failsAfterMin: text(story?.failsAfterMin),
    tankThen: text(story?.tankThenML, 1000),
    tankNow: text(story?.tankNowML, 1000),
    ageYears: text(story?.ageYears),
    hours: text(story?.hours),
  });
  const close = (): void => {
    clear();
    onClose();
  };
  const litres = (typed: string): number | null => {
    const value = amount(typed);
    return value === null ? null : value * 1000;
  };
  const { run, busy, problem } = useWrite(
    () =>
      ask(
        api.PUT('/api/trays/{number}/story', {
          params: { path: { number: tray.number } },
          body: {
            version: draft.version,
            whose: draft.whose,
            fuelKind: draft.fuelKind,
            oilThen: draft.oilThen,
            failsAfterMin: amount(draft.failsAfterMin),
            tankThenML: litres(draft.tankThen),
            tankNowML: litres(draft.tankNow),
            ageYears: amount(draft.ageYears),
            hours: amount(draft.hours),
          },
        }),
      ),
    {
      changes: [keys.ofTray(tray.number)],
      done: (now) => {
        queries.setQueryData(keys.tray(tray.number), now);
        close();
      },
    },
  );
  const wrong = (name: (typeof numbers)[number]): string | undefined => {
    if (draft[name].trim() !== '' && amount(draft[name]) === null) return 'Enter a plain number.';
    const field = { tankThen: 'tankThenML', tankNow: 'tankNowML' }[name as string] ?? name;
    return problem?.errors[`story.${field}`]?.[0];
  };
  const isRight = numbers.every((name) => draft[name].trim() === '' || amount(draft[name]) !== null);
  const box = (label: string, name: (typeof numbers)[number]) => (
    <TextField
      label={label}
      inputMode="decimal"
      className="num"
      value={draft[name]}
      problem={wrong(name)}
      onChange={(event) => keep({ ...draft, [name]: event.target.value })}
    />
  );
  return (
    <form
      aria-label="What was told"
      className="grid gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        if (isRight) void run();
      }}
    >
      <div className="grid items-start gap-3 sm:grid-cols-3">
        {box('Dies after, minutes', 'failsAfterMin')}
        {box('Tank then, litres', 'tankThen')}
        {box('Tank now, litres', 'tankNow')}
        {box('Machine’s age, years', 'ageYears')}
        {box('Hours it has run', 'hours')}
      </div>
      <div className="grid gap-1">
        <span className="font-strong">Whose machine</span>
        <Choice
          label="Whose machine"
          value={draft.whose === 'notSaid' ? '' : draft.whose}
          options={choices(whoseWord)}
          onChange={(whose) => keep({ ...draft, whose })}
          onClear={() => keep({ ...draft, whose: 'notSaid' })}
          small
        />
      </div>
      <div className="grid gap-1">
        <span className="font-strong">Kind of fuel</span>
        <Choice
          label="Kind of fuel"
          value={draft.fuelKind === 'notSaid' ? '' : draft.fuelKind}
          options={choices(fuelKindWord)}
          onChange={(fuelKind) => keep({ ...draft, fuelKind })}
          onClear={() => keep({ ...draft, fuelKind: 'notSaid' })}
          small
        />
      </div>
      <div className="grid gap-1">
        <span className="font-strong">Oil, when last read</span>
        <Choice
          label="Oil, when last read"
          value={draft.oilThen === 'notSaid' ? '' : draft.oilThen}
          options={choices(oilLevelWord)}
          onChange={(oilThen) => keep({ ...draft, oilThen })}
          onClear={() => keep({ ...draft, oilThen: 'notSaid' })}
          small
        />
      </div>
      <p className="text-mute">What the owner complains of, and what was tried, is put right at Trace.</p>
      {problem && Object.keys(problem.errors).length === 0 && <Notice title={problem.title}>{problem.detail}</Notice>}
      <span className="flex gap-3">
        <Button type="submit" look="hands" disabled={busy}>
          Save
        </Button>
        <Button look="quiet" onClick={close}>
          Leave it as it was
        </Button>
      </span>
    </form>
  );
}
