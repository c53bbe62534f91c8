import { Pencil, Undo2 } from 'lucide-react';
import { useState } from 'react';
import type { Entry, Line } from '../api/client';
import { outbox } from '../outbox/outbox';
import { usePending } from '../shell/useRecord';
import { useUnits } from '../session/session';
import { Button } from '../ui/button';
import { verdictText } from '../ui/verdict';
import { moment, quantity, say } from '../units/format';
import { asFoundOrLeft } from './entry';
import type { LineState } from './useLine';

interface Props {
  tray: number;
  line: Line;
  history: Entry[];
  state: LineState;
  mayRecord: boolean;
  onCorrect: () => void;
}

/** The inputs, the rule and the source, then everything that was ever read on this line. */
export function Why({ line, state, history, tray, mayRecord, onCorrect }: Props) {
  const units = useUnits();
  const asPending = usePending(tray);
  const [problem, setProblem] = useState('');
  const { judgement } = state;
  const withdraw = async (): Promise<void> => {
    if (!line.standing) return;
    const sent = await outbox.record([asPending({ kind: 'withdrawal' }, line.standing.entryId)]);
    setProblem(sent.problem ? `${sent.problem.title} ${sent.problem.detail}` : '');
  };
  return (
    <div className="bg-paper mt-1 grid gap-4 rounded-lg p-4 md:grid-cols-2">
      <section>
        <h4 className="font-bold">Why</h4>
        <ul className="mt-1 grid gap-1">
          {judgement.why.map((sentence) => (
            <li key={sentence.text}>{say(sentence, units)}</li>
          ))}
          {judgement.why.length === 0 && <li>Nothing has been read yet.</li>}
          <li className="text-mute">Limits: {line.limitSource}</li>
        </ul>
        <dl className="mt-3 grid grid-cols-[1fr_auto] gap-x-4 gap-y-0.5">
          {judgement.figures.map((f) => (
            <div key={f.key} className="contents">
              <dt className="text-mute">{f.label}</dt>
              <dd className="num text-right font-strong">{quantity(f.quantity, units)}</dd>
            </div>
          ))}
        </dl>
      </section>
      <section>
        <h4 className="font-bold">Read so far</h4>
        <ol className="mt-1 grid gap-2">
          {history.map((entry) => (
            <li key={entry.id} className={entry.superseded ? 'text-mute line-through decoration-1' : ''}>
              <span className="font-medium">{say(entry.what, units)}</span>
              <span className="text-mute block text-note">
                {entry.kind === 'reading' && !entry.superseded && `${asFoundOrLeft(line, entry.id)}, `}
                {entry.by}, {moment(entry.takenAt)}
                {entry.supersedes && (entry.kind === 'withdrawal' ? '' : ' (correction)')}
              </span>
            </li>
          ))}
          {history.length === 0 && <li className="text-mute">Nothing yet.</li>}
        </ol>
        {line.standing && mayRecord && (
          <div className="mt-3 flex flex-wrap gap-2">
            <Button onClick={onCorrect}>
              <Pencil aria-hidden size={16} /> Correct it
            </Button>
            <Button onClick={() => void withdraw()}>
              <Undo2 aria-hidden size={16} /> Withdraw it
            </Button>
          </div>
        )}
        {problem && (
          <p role="alert" className={`mt-2 ${verdictText.notGood}`}>
            {problem}
          </p>
        )}
      </section>
    </div>
  );
}
