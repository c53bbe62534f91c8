import type { CleanResult, RecipeOffer } from '../../api/client';
import { useKept } from '../../outbox/drafts';
import { Button } from '../../ui/button';
import { TextField } from '../../ui/field';
import type { StepProps } from './step';

interface Props extends Pick<StepProps, 'mayRecord' | 'busy' | 'problem' | 'record'> {
  /** Where what is typed is kept: whose it is, and of which tray. */
  draft: string;
  offer: RecipeOffer;
}

/** What became of it: clean, not clean yet, no cleaner, and how many minutes where somebody counted. */
export function Outcome({ draft, offer, mayRecord, busy, problem, record }: Props) {
  const { recipe, goesIn } = offer;
  const [minutes, keep, drop] = useKept(`${draft}:minutes:${recipe.key}`, '');
  const counted = minutes.trim() === '' ? undefined : Number(minutes.replace(',', '.'));
  const unread = counted !== undefined && !Number.isFinite(counted);
  const done = (result: CleanResult): void =>
    void record({
      kind: 'method',
      recipe: recipe.key,
      step: 'done',
      result,
      ...(goesIn.length > 0 && { pieces: [...goesIn] }),
      ...(counted !== undefined && { minutes: counted }),
    }).then((taken) => {
      if (taken) drop();
    });
  return (
    <div className="flex flex-wrap items-end gap-2 py-1">
      <TextField
        label="Minutes it took"
        className="max-w-32"
        inputMode="decimal"
        placeholder={String(recipe.minutes)}
        value={minutes}
        problem={unread ? 'A number of minutes, or nothing.' : problem?.errors['note.minutes']?.[0]}
        onChange={(event) => keep(event.target.value)}
      />
      <Button
        look="hands"
        disabled={!mayRecord || busy || unread}
        aria-label={`It is done: ${recipe.label}`}
        onClick={() => done('clean')}
      >
        It is done
      </Button>
      <Button
        disabled={!mayRecord || busy || unread}
        aria-label={`Not clean yet: ${recipe.label}`}
        onClick={() => done('notYet')}
      >
        Not clean yet
      </Button>
      <Button
        disabled={!mayRecord || busy || unread}
        aria-label={`No cleaner: ${recipe.label}`}
        onClick={() => done('noChange')}
      >
        No cleaner
      </Button>
      <Button
        look="quiet"
        className="px-2"
        disabled={!mayRecord || busy}
        aria-label={`Not this: ${recipe.label}`}
        onClick={() => void record({ kind: 'method', recipe: recipe.key, step: 'dropped' })}
      >
        Not this
      </Button>
    </div>
  );
}
