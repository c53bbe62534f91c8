import { useQueryClient } from '@tanstack/react-query';
import type { StoryChange, Tray } from '../../api/client';
import { api, ask } from '../../api/client';
import { useWrite } from '../../api/useWrite';
import { useKept } from '../../outbox/drafts';
import { usePerson } from '../../session/session';
import { keys } from '../../api/keys';
import { Button } from '../../ui/button';
import { Notice } from '../../ui/states';
import { amount, isNumber, litres, NO_NUMBER, NumberBox, Question, type Answer, type QuestionName } from './questions';

interface Draft extends Pick<StoryChange, 'whose' | 'fuelKind' | 'oilThen' | 'version'> {
  failsAfterMin: string;
  tankThen: string;
  tankNow: string;
  ageYears: string;
  hours: string;
}

const text = (value: number | null | undefined, of = 1): string => (value == null ? '' : (value / of).toString());
const told = ['failsAfterMin', 'tankThen', 'tankNow', 'ageYears', 'hours'] as const;

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
  const wrong = (name: (typeof told)[number]): string | undefined => {
    if (!isNumber(draft[name])) return NO_NUMBER;
    const field = { tankThen: 'tankThenML', tankNow: 'tankNowML' }[name as string] ?? name;
    return problem?.errors[`story.${field}`]?.[0];
  };
  const isRight = told.every((name) => isNumber(draft[name]));
  const answer = <N extends QuestionName>(name: N, given: Answer<N>): void => keep({ ...draft, [name]: given });
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
        {told.map((name) => (
          <NumberBox
            key={name}
            of={name}
            value={draft[name]}
            problem={wrong(name)}
            onChange={(event) => keep({ ...draft, [name]: event.target.value })}
          />
        ))}
      </div>
      {(['whose', 'fuelKind', 'oilThen'] as const).map((name) => (
        <Question key={name} name={name} value={draft[name]} onAnswer={answer} />
      ))}
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
