import type { FaultWords, Trace, TraceNote } from '../../api/client';
import { useKept } from '../../outbox/drafts';
import { usePerson } from '../../session/session';
import { toldByWord, triedOutcomeWord } from '../../shell/words';
import { ToldEditor, toldOf, type Told } from '../../tray/ToldEditor';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { day, localToday, percent } from '../../units/format';

interface Props {
  tray: number;
  trace: Trace;
  words: FaultWords;
  mayRecord: boolean;
  record: (note: TraceNote) => Promise<boolean>;
  /** Goes to the check that would tell. */
  onCheck: (checkId: string) => void;
}

const stateWord = { open: '', found: 'Found so.', ruledOut: 'It was not that.' };

/** What was tried before it came in, and what somebody says is wrong: a hypothesis like any other. */
export function ToldCard({ tray, trace, words, mayRecord, record, onCheck }: Props) {
  const { tried, offered } = trace.evidence;
  const person = usePerson();
  // What is half said survives a reload.
  const [editing, setEditing, leave] = useKept<Told | null>(`${person.id}:${tray}:told`, null);
  const label = (id: string): string => words.causes.find((cause) => cause.id === id)?.label ?? id;
  const check = (id: string): string => words.checks.find((one) => one.id === id)?.label ?? id;
  if (editing)
    return (
      <Card label="Tried or said before" pad="rows" className="block">
        <h2 className="pb-1 text-title">Tried or said before</h2>
        <ToldEditor causes={words.causes} value={editing} onChange={setEditing} />
        <div className="border-line mt-2 flex gap-2 border-t pt-2">
          <Button
            look="hands"
            disabled={!mayRecord}
            onClick={() => {
              void record({ kind: 'told', ...toldOf(editing) }).then((done) => done && leave());
            }}
          >
            Record
          </Button>
          <Button look="quiet" onClick={leave}>
            Leave it as it was
          </Button>
        </div>
      </Card>
    );
  const nothing = tried.length === 0 && offered.length === 0;
  return (
    <Card label="Tried or said before" pad="rows" className="block">
      <header className="flex flex-wrap items-center justify-between gap-x-4">
        <h2 className="text-title">Tried or said before</h2>
        {mayRecord && (
          <Button look="quiet" onClick={() => setEditing({ tried, offered })}>
            {nothing ? 'Add' : 'Change'}
          </Button>
        )}
      </header>
      {nothing && <p className="text-mute pb-1">Nothing is known to have been tried, and nobody says what it is.</p>}
      <ul>
        {trace.hypotheses.map((one) => (
          <li key={one.causeId + one.by} className="border-line flex flex-wrap items-center gap-x-3 border-t py-1">
            <span className="min-w-0 flex-1 basis-52 leading-tight">
              {toldByWord[one.by]} says: {one.label.toLowerCase()}
              <span className="text-mute block text-note">
                {stateWord[one.state] ||
                  `${percent(one.probability)} by what is known; it weighs nothing until it is looked at.` +
                    (one.checkId ? '' : ' No check is left that would tell.')}
              </span>
            </span>
            {one.checkId && one.state === 'open' && (
              <Button
                look="quiet"
                aria-label={`What would tell: ${check(one.checkId)}`}
                disabled={!mayRecord}
                onClick={() => onCheck(one.checkId ?? '')}
              >
                What would tell
              </Button>
            )}
          </li>
        ))}
        {tried.map((one, i) => (
          <li key={i} className="border-line border-t py-1 leading-tight">
            Tried for: {label(one.causeId).toLowerCase()}
            <span className="text-mute block text-note">
              {toldByWord[one.by]}
              {one.on && `, ${day(one.on, localToday())}`}
              {one.outcome && one.outcome !== 'notSaid' && `, ${triedOutcomeWord[one.outcome].toLowerCase()}`}
            </span>
          </li>
        ))}
      </ul>
    </Card>
  );
}
