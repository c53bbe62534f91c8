import { Card } from '../../ui/card';
import { useId, useState } from 'react';
import { Link } from 'react-router';
import type { EvidenceItem, FaultWords, Said, Station, TraceNote, TraceView } from '../../api/client';
import { stationWord, trayPath } from '../../shell/stations';
import { Button } from '../../ui/button';
import { TextField } from '../../ui/field';
import { moment } from '../../units/format';

interface Props {
  tray: number;
  view: TraceView;
  words: FaultWords;
  mayRecord: boolean;
  record: (note: TraceNote) => Promise<boolean>;
}

/** Everything found, where it is from, and a way to add any finding at any time. */
export function EvidenceList({ tray, view, words, mayRecord, record }: Props) {
  const { items } = view.trace.evidence;
  const answer = (item: EvidenceItem, said: Said, doubtful: boolean): void =>
    void record({
      kind: 'findings',
      checkId: null,
      answers: [{ findingId: item.findingId, said, doubtful }],
      fromOwner: item.from === 'owner',
    });
  return (
    <Card label="What was found" pad="rows" className="block">
      <h2 className="pb-1 text-title">What was found</h2>
      <ul>
        {items.map((item) => {
          const station = item.lineKey?.split('/')[0] as Station | undefined;
          return (
            <li
              key={item.entryId + item.findingId}
              className={`border-line flex flex-wrap items-center gap-x-3 border-t py-1 ${item.beforeFix ? 'text-mute' : ''}`}
            >
              <span className={`w-9 shrink-0 font-bold ${item.present ? '' : 'text-mute'}`}>
                {item.present ? 'Yes' : 'No'}
              </span>
              <span className="min-w-0 flex-1 basis-52 leading-tight">
                {item.label}
                <span className="text-mute block text-note">
                  {item.from === 'owner' && 'Owner, told to '}
                  {station ? (
                    <>
                      <Link className="underline underline-offset-3" to={trayPath(tray, station)}>
                        {stationWord(station)}
                      </Link>
                      {', read by '}
                    </>
                  ) : null}
                  {view.people[item.entryId]}, {moment(item.takenAt)}
                  {item.doubtful && ', doubtful'}
                  {item.beforeFix && ', before the fix'}
                  {item.asLeft && ', as left: how it came in is not known'}
                </span>
              </span>
              {!station && mayRecord && !item.beforeFix && (
                <span className="flex gap-1">
                  <Button
                    look="quiet"
                    aria-pressed={item.doubtful}
                    onClick={() => answer(item, item.present ? 'present' : 'absent', !item.doubtful)}
                  >
                    {item.doubtful ? 'Sure after all' : 'Doubtful'}
                  </Button>
                  <Button
                    look="quiet"
                    aria-label={`Take back: ${item.label}`}
                    onClick={() => answer(item, 'couldNotTell', false)}
                  >
                    Take back
                  </Button>
                </span>
              )}
            </li>
          );
        })}
        {items.length === 0 && (
          <li className="text-mute py-1">Nothing yet. Answer the check above, or add what you see.</li>
        )}
      </ul>
      {mayRecord && <AddFinding words={words} record={record} />}
    </Card>
  );
}

/** Any finding, out of order. */
function AddFinding({ words, record }: Pick<Props, 'words' | 'record'>) {
  const [typed, setTyped] = useState('');
  const [unknown, setUnknown] = useState(false);
  const list = useId();
  const add = async (said: Said): Promise<void> => {
    const wanted = typed.trim().toLowerCase();
    const matches = words.findings.filter((f) => f.label.toLowerCase().includes(wanted));
    const found =
      matches.find((f) => f.label.toLowerCase() === wanted) ?? (matches.length === 1 ? matches[0] : undefined);
    setUnknown(!found || wanted === '');
    if (!found || wanted === '') return;
    if (
      await record({
        kind: 'findings',
        checkId: null,
        answers: [{ findingId: found.id, said, doubtful: false }],
        fromOwner: false,
      })
    )
      setTyped('');
  };
  return (
    <form
      className="border-line mt-1 flex flex-wrap items-end gap-2 border-t pt-2"
      onSubmit={(event) => {
        event.preventDefault();
        void add('present');
      }}
    >
      <div className="min-w-0 flex-1 basis-64">
        <TextField
          label="Add what you found"
          list={list}
          value={typed}
          problem={unknown ? 'Pick one from the list: type a word of it.' : undefined}
          onChange={(event) => {
            setTyped(event.target.value);
            setUnknown(false);
          }}
        />
        <datalist id={list}>
          {words.findings.map((f) => (
            <option key={f.id} value={f.label} />
          ))}
        </datalist>
      </div>
      <Button type="submit">It is there</Button>
      <Button onClick={() => void add('absent')}>It is not</Button>
    </form>
  );
}
