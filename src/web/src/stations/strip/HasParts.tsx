import { useState } from 'react';
import type { LedgerNote, LedgerView } from '../../api/client';
import { useKept } from '../../outbox/drafts';
import { Button } from '../../ui/button';
import { Several } from '../../ui/choice';

interface Props {
  /** Where what is chosen is kept: whose it is, and of which tray. */
  draft: string;
  view: LedgerView;
  busy: boolean;
  onRecord: (note: LedgerNote) => Promise<boolean>;
}

/**
 * What only some carburetors of the family have, said once and in the order it comes off: what is there gets a line, what is
 * not is asked for nowhere, and the next one of its sheet starts with that.
 */
export function HasParts(props: Props) {
  return (
    <>
      <Besides {...props} />
      <NoneOf {...props} />
    </>
  );
}

/** Usual parts that it has none of, as was said of it or of the last one of its sheet; a word said by mistake is said back. */
function NoneOf({ view, busy, onRecord }: Props) {
  const none = view.byName.filter(
    (part) => view.has[part.key] === false && view.optional.every((one) => one.key !== part.key),
  );
  return none.map((part) => (
    <p key={part.key} className="text-mute">
      It has none: {part.label}.
      <Button
        look="quiet"
        className="ml-2"
        disabled={busy}
        aria-label={`It has one: ${part.label}`}
        onClick={() => void onRecord({ kind: 'has', has: [part.key], hasNot: [] })}
      >
        It has one
      </Button>
    </p>
  ));
}

function Besides({ draft, view, busy, onRecord }: Props) {
  const parts = view.optional;
  const there = parts.filter((part) => view.has[part.key] === true);
  const [kept, keep, drop] = useKept<string[] | null>(draft, null);
  const [changing, setChanging] = useState(kept !== null);
  if (parts.length === 0) return null;
  const isSaid = view.hasSaid || parts.some((part) => view.has[part.key] !== undefined);
  if (isSaid && !changing) {
    return (
      <p className="text-mute">
        {view.hasSaid ? 'Besides the usual it has: ' : 'As the last one of its sheet it has: '}
        {there.length > 0 ? there.map((part) => part.label).join(', ') : 'nothing'}.
        <button
          type="button"
          className="ml-3 min-h-11 underline underline-offset-4"
          aria-label="Change what it has"
          onClick={() => setChanging(true)}
        >
          Change
        </button>
      </p>
    );
  }
  if (!changing) {
    return (
      <p className="text-mute">
        Bolts, links, springs, hoses, taps: only some have them.
        <Button look="quiet" className="ml-2" onClick={() => setChanging(true)}>
          Say what it has
        </Button>
      </p>
    );
  }
  const chosen = kept ?? there.map((part) => part.key);
  const say = async (): Promise<void> => {
    const settled = await onRecord({
      kind: 'has',
      has: parts.map((part) => part.key).filter((key) => chosen.includes(key)),
      // What came out is there, whatever is said.
      hasNot: parts
        .map((part) => part.key)
        .filter(
          (key) =>
            !chosen.includes(key) && !view.lines.some((line) => line.part.key === key && line.state !== 'expected'),
        ),
    });
    if (!settled) return;
    drop();
    setChanging(false);
  };
  return (
    <section aria-label="What it has besides" className="border-line grid gap-2 border-t py-2">
      <h3 className="text-lead font-bold">Which of these does it have?</h3>
      <Several
        label="Parts that only some have"
        values={chosen}
        options={parts.map((part) => ({ value: part.key, label: part.label }))}
        onChange={keep}
      />
      <span className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <Button disabled={busy} onClick={() => void say()}>
          {chosen.length === 0
            ? 'None of these'
            : chosen.length === 1
              ? 'It has this one'
              : `It has these ${chosen.length}`}
        </Button>
        <Button
          look="quiet"
          onClick={() => {
            drop();
            setChanging(false);
          }}
        >
          Leave it
        </Button>
        <span className="text-mute">What is there gets a line. The next one of its sheet starts with it.</span>
      </span>
    </section>
  );
}
