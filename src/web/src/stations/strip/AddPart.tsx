import { useId, useState } from 'react';
import { v7 as uuidv7 } from 'uuid';
import type { LedgerNote, LedgerView, LineVerdict } from '../../api/client';
import { Button } from '../../ui/button';
import { TextField } from '../../ui/field';

interface Props {
  view: LedgerView;
  busy: boolean;
  onRecord: (note: LedgerNote) => Promise<boolean>;
}

/** Something else came out or goes in: a part that is on no list, one that somebody put there, or one of ours. */
export function AddPart({ view, busy, onRecord }: Props) {
  const [label, setLabel] = useState('');
  const [from, setFrom] = useState('');
  const [problem, setProblem] = useState('');
  const list = useId();
  const named = view.byName.find((part) => part.label.toLowerCase() === label.trim().toLowerCase());
  const add = async (verdict: LineVerdict): Promise<void> => {
    const said = label.trim();
    if (!said) {
      setProblem('Say what it is.');
      return;
    }
    const settled = await onRecord({
      kind: 'out',
      part: named?.key ?? `extra:${uuidv7()}`,
      verdict,
      label: named ? null : said,
      from: from.trim() || null,
      notCounted: false,
    });
    if (settled) {
      setLabel('');
      setFrom('');
    }
  };
  return (
    <form
      aria-label="Something else came out"
      className="grid items-end gap-3 pt-2 sm:grid-cols-[minmax(0,5fr)_minmax(0,3fr)]"
      onSubmit={(event) => {
        event.preventDefault();
        void add('clean');
      }}
    >
      <TextField
        label="Something else came out"
        list={list}
        placeholder="what it is"
        value={label}
        problem={problem}
        onChange={(event) => {
          setLabel(event.target.value);
          setProblem('');
        }}
      />
      <datalist id={list}>
        {view.byName.map((part) => (
          <option key={part.key} value={part.label} />
        ))}
      </datalist>
      <TextField label="Where from" value={from} onChange={(event) => setFrom(event.target.value)} />
      {named?.remind && (
        <p role="status" className="leading-snug sm:col-span-full">
          Before it comes off: {named.remind}
        </p>
      )}
      <span className="flex flex-wrap gap-2 sm:col-span-full">
        <Button type="submit" disabled={busy}>
          Belongs
        </Button>
        <Button disabled={busy} onClick={() => void add('added')}>
          Added by someone
        </Button>
        <Button disabled={busy} onClick={() => void add('ours')}>
          Put in by us
        </Button>
      </span>
    </form>
  );
}
