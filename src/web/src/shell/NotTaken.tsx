import { useSyncExternalStore } from 'react';
import { useNavigate } from 'react-router';
import type { Note, Problem, TypedReading } from '../api/client';
import { device } from '../outbox/device';
import { lineDraftKey } from '../outbox/drafts';
import { outbox, type NotTaken } from '../outbox/outbox';
import { parcels, type Parcel } from '../outbox/parcels';
import { usePerson } from '../session/session';
import { stationOfLine, trayPath } from './stations';
import { noteWord } from './words';
import { Button } from '../ui/button';
import { Dialog } from '../ui/dialog';
import { moment } from '../units/format';

const typedText = ({ values, rows }: TypedReading): string =>
  [...Object.values(values), ...rows.map((row) => Object.values(row).join(' at '))].filter(Boolean).join(', ');

/** What was entered, in the words it was entered with. */
function said(note: Note): string {
  if (note.kind === 'reading') return typedText(note.typed);
  return Object.entries(note)
    .filter(([name, value]) => name !== 'kind' && value !== null && value !== '')
    .map(([, value]) => (typeof value === 'object' ? JSON.stringify(value) : String(value)))
    .join(', ');
}

const whatOf = (note: Note): string =>
  note.kind === 'reading'
    ? note.line.replace(/^[^/]*[/]/, '').replaceAll('-', ' ')
    : note.kind
      ? noteWord[note.kind]
      : '';

/** What the server did not take: nothing of it is lost until a person says so. */
export function NotTakenDialog({ open, onOpenChange }: { open: boolean; onOpenChange: (open: boolean) => void }) {
  const person = usePerson();
  const navigate = useNavigate();
  const entries = useSyncExternalStore(outbox.subscribe, outbox.notTaken).filter((e) => e.personId === person.id);
  useSyncExternalStore(parcels.subscribe, parcels.current);
  const refused = parcels.refused().filter((p) => p.personId === person.id);
  const toBox = (entry: NotTaken): void => {
    if (entry.note.kind !== 'reading') return;
    const { line, typed } = entry.note;
    const draft = { group: null, values: typed.values, rows: typed.rows, correcting: entry.supersedes };
    device.set(`draft:${lineDraftKey(entry.personId, entry.tray, line)}`, JSON.stringify(draft));
    void outbox.settle(entry.id);
    onOpenChange(false);
    void navigate(trayPath(entry.tray, stationOfLine(line)));
  };
  return (
    <Dialog
      title="Not taken"
      description="The server refused these. Nothing of them is in the book, and nothing is thrown away before you say so."
      open={open}
      onOpenChange={onOpenChange}
    >
      <ul className="divide-line grid divide-y">
        {entries.map((entry) => (
          <Row
            key={entry.id}
            what={`Tray ${entry.tray}: ${whatOf(entry.note)}`}
            text={said(entry.note)}
            at={entry.takenAt}
            problem={entry.problem}
          >
            {entry.note.kind === 'reading' ? (
              <Button look="hands" onClick={() => toBox(entry)}>
                Back into its box
              </Button>
            ) : (
              <Button
                look="hands"
                onClick={() => {
                  onOpenChange(false);
                  void navigate(trayPath(entry.tray));
                }}
              >
                Go to tray {entry.tray}
              </Button>
            )}
            <Button onClick={() => void outbox.settle(entry.id)}>Throw it away</Button>
          </Row>
        ))}
        {refused.map((one) => (
          <Row key={one.id} what={nameOf(one)} text={textOf(one)} at={one.takenAt} problem={one.problem}>
            {one.what === 'checkIn' && (
              <Button
                look="hands"
                onClick={() => {
                  const { trayId, entryId, story, ...values } = one.body;
                  const told = story ? { ...story, complaints: story.complaints } : {};
                  const form = { trayId, entryId, values: { ...values, ...told } };
                  device.set(`draft:${person.id}:check-in`, JSON.stringify(form));
                  void parcels.drop(one.id);
                  onOpenChange(false);
                  void navigate('/check-in');
                }}
              >
                Back into the form
              </Button>
            )}
            <Button onClick={() => void parcels.drop(one.id)}>Throw it away</Button>
          </Row>
        ))}
      </ul>
    </Dialog>
  );
}

const nameOf = (one: Parcel): string =>
  one.what === 'checkIn' ? `Check-in: ${one.body.machineName}` : `Photo ${one.name}`;
const textOf = (one: Parcel): string => (one.what === 'checkIn' ? `${one.body.ownerName}: ${one.body.complaint}` : '');

function Row(props: {
  what: string;
  text: string;
  at: string;
  problem?: Problem | undefined;
  children: React.ReactNode;
}) {
  const { what, text, at, problem, children } = props;
  const why = problem ? (Object.values(problem.errors)[0]?.[0] ?? `${problem.title} ${problem.detail}`) : '';
  return (
    <li className="grid gap-1 py-3">
      <p className="flex flex-wrap justify-between gap-x-4">
        <span className="font-bold">{what}</span>
        <span className="text-mute text-note">{moment(at)}</span>
      </p>
      {text && <p className="num break-words">{text}</p>}
      <p className="text-bad">{why}</p>
      <div className="mt-1 flex flex-wrap gap-2">{children}</div>
    </li>
  );
}
