import { useState } from 'react';
import type { NoteOf, Tray } from '../api/client';
import { useAllowed } from '../session/session';
import { useRecord } from '../shell/useRecord';
import { remarkWord } from '../shell/words';
import { Button } from '../ui/button';
import { TextField } from '../ui/field';
import { moment } from '../units/format';
import type { Remark } from './remarks';

/** Notes that stand, each with a way to its end. */
export function RemarkList({ tray, remarks }: { tray: Tray; remarks: Remark[] }) {
  const [ending, setEnding] = useState<string | null>(null);
  return (
    <ul>
      {remarks.map((entry) => (
        <li key={entry.id} className="border-line flex flex-wrap items-center gap-x-3 border-t py-1.5">
          <span className="min-w-0 flex-1 basis-56 leading-tight">
            <span className={`font-strong ${entry.remark.fate === 'unsafe' ? 'text-bad' : ''}`}>
              {remarkWord[entry.remark.fate]}:
            </span>{' '}
            {entry.remark.words}
            <span className="text-mute block text-note">
              {entry.by}, {moment(entry.takenAt)}
            </span>
          </span>
          {entry.remark.fate === 'done' || entry.remark.ends !== null ? null : ending === entry.id ? (
            <End tray={tray} entry={entry} onClose={() => setEnding(null)} />
          ) : (
            <Button look="quiet" aria-label={`It is done: ${entry.remark.words}`} onClick={() => setEnding(entry.id)}>
              It is done
            </Button>
          )}
        </li>
      ))}
    </ul>
  );
}

/** What was done about a note: then it stands no longer, and both are printed as done. */
function End({ tray, entry, onClose }: { tray: Tray; entry: Remark; onClose: () => void }) {
  const work = useRecord<NoteOf<'remark'>>(tray.number);
  const mayWork = useAllowed('workAtTheBench');
  const mayNote = useAllowed('checkIn');
  const may = entry.remark.fate === 'unsafe' ? mayWork : mayNote;
  const [text, setText] = useState('');
  const [missing, setMissing] = useState(false);
  return (
    <form
      className="grid w-full gap-2 py-1"
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        setMissing(text.trim() === '');
        if (text.trim() === '') return;
        void work
          .record({
            kind: 'remark',
            fate: entry.remark.fate === 'shopOnly' ? 'shopOnly' : 'done',
            text: `${entry.remark.words}: ${text.trim()}`.slice(0, 500),
            at: entry.remark.at,
            line: null,
            part: null,
            ends: entry.id,
          })
          .then((done) => {
            if (done) onClose();
          });
      }}
    >
      <TextField
        label="What was done"
        value={text}
        maxLength={200}
        autoFocus
        problem={work.problem?.detail ?? (missing ? 'Write what was done.' : undefined)}
        onChange={(event) => setText(event.target.value)}
      />
      <div className="flex gap-3">
        <Button type="submit" look="hands" disabled={!may || work.busy}>
          It is done
        </Button>
        <Button look="quiet" onClick={onClose}>
          Not yet
        </Button>
      </div>
    </form>
  );
}
