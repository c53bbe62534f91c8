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

/** Something else came out: a part that is on no list, or one that somebody put there. */
export function AddPart({ view, busy, onRecord }: Props) {
  const [label, setLabel] = useState('');
  const [from, setFrom] = useState('');
  const [problem, setProblem] = useState('');
  const list = useId();
  const add = async (verdict: LineVerdict): Promise<void> => {
    const said = label.trim();
    if (!said) {
      setProblem('Say what it is.');
      return;
    }
    const known = view.byName.find((part) => part.label.toLowerCase() === said.toLowerCase());
    const settled = await onRecord({
      kind: 'out',
      part: known?.key ?? `extra:${uuidv7()}`,
      verdict,
      label: known ? null : said,
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
      className="grid items-end gap-3 pt-2 sm:grid-cols-[minmax(0,5fr)_minmax(0,3fr)_auto]"
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
      <span className="flex flex-wrap gap-2">
        <Button type="submit" disabled={busy}>
          Belongs
        </Button>
        <Button disabled={busy} onClick={() => void add('added')}>
          Added by someone
        </Button>
      </span>
    </form>
  );
}
