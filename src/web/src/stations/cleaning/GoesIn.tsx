import { useState } from 'react';
import type { CleaningPiece, RecipeOffer } from '../../api/client';
import { useKept } from '../../outbox/drafts';
import { Button } from '../../ui/button';
import { Several } from '../../ui/choice';
import { TextField } from '../../ui/field';
import type { StepProps } from './step';

interface Props extends Pick<StepProps, 'mayRecord' | 'problem' | 'record'> {
  /** Where what is typed is kept: whose it is, and of which tray. */
  draft: string;
  offer: RecipeOffer;
  pieces: readonly CleaningPiece[];
}

interface Chosen {
  pieces: string[];
  because: string;
}

/** Which pieces go in: what lies in the dish and may, unless others are chosen. The body only once nothing soft is in it. */
export function GoesIn({ draft, offer, pieces, mayRecord, problem, record }: Props) {
  const { recipe, goesIn, takeOutFirst } = offer;
  const [kept, keep, drop] = useKept<Chosen | null>(`${draft}:goes-in:${recipe.key}`, null);
  const [open, setOpen] = useState(kept !== null);
  const label = (key: string): string => pieces.find((one) => one.key === key)?.label ?? key;
  // A body that was chosen bare and has something soft in it again is not offered: it must not be sent either.
  const bare = (key: string): boolean => key !== 'body' || takeOutFirst.length === 0;
  const chosen = { pieces: (kept?.pieces ?? goesIn).filter(bare), because: kept?.because ?? '' };
  const soft = chosen.pieces.filter((key) => {
    const piece = pieces.find((one) => one.key === key);
    return piece !== undefined && recipe.outFirst.includes(piece.material) && !goesIn.includes(key);
  });
  if (!open) {
    return (
      <div className="leading-snug">
        <p>
          Goes in: <b>{goesIn.length === 0 ? 'nothing yet' : goesIn.map(label).join(', ')}</b>.
          {takeOutFirst.length > 0 && ` The body only without: ${takeOutFirst.join(', ')}.`}
        </p>
        <Button
          look="quiet"
          className="px-0"
          disabled={!mayRecord}
          aria-label={`Other pieces: ${recipe.label}`}
          onClick={() => setOpen(true)}
        >
          Other pieces
        </Button>
      </div>
    );
  }
  return (
    <form
      aria-label={`What goes in: ${recipe.label}`}
      className="grid gap-2 py-1"
      onSubmit={(event) => {
        event.preventDefault();
        void record({
          kind: 'method',
          recipe: recipe.key,
          step: 'chosen',
          pieces: chosen.pieces,
          ...(soft.length > 0 && { soBecause: chosen.because }),
        }).then((taken) => {
          if (!taken) return;
          drop();
          setOpen(false);
        });
      }}
    >
      <Several
        label={`Pieces: ${recipe.label}`}
        values={chosen.pieces}
        disabled={!mayRecord}
        options={pieces.filter((piece) => bare(piece.key)).map((piece) => ({ value: piece.key, label: piece.label }))}
        onChange={(next) => keep({ ...chosen, pieces: next })}
      />
      {takeOutFirst.length > 0 && (
        <p className="text-mute leading-snug">The body only without: {takeOutFirst.join(', ')}.</p>
      )}
      {soft.length > 0 && (
        <TextField
          label={`Why this may go in here: ${soft.map(label).join(', ')}`}
          hint="Such as: it is brass on this one"
          value={chosen.because}
          maxLength={200}
          problem={problem?.errors['note.soBecause']?.[0]}
          onChange={(event) => keep({ ...chosen, because: event.target.value })}
        />
      )}
      <div className="flex flex-wrap gap-2">
        <Button type="submit" disabled={!mayRecord || chosen.pieces.length === 0}>
          These go in
        </Button>
        <Button
          look="quiet"
          onClick={() => {
            drop();
            setOpen(false);
          }}
        >
          As it was
        </Button>
      </div>
    </form>
  );
}
