import { useState } from 'react';
import type { NoteOf, RemarkFate, Station, Tray } from '../api/client';
import { useKept } from '../outbox/drafts';
import { useAllowed, usePerson } from '../session/session';
import { useLedger } from '../shell/queries';
import { useRecord } from '../shell/useRecord';
import { remarkWord } from '../shell/words';
import { Button } from '../ui/button';
import { Choice } from '../ui/choice';
import { Dialog } from '../ui/dialog';
import { SelectField, TextArea } from '../ui/field';
import { Notice } from '../ui/states';
import { RemarkList } from './RemarkList';
import { remarksOf } from './remarks';

const fates = (Object.keys(remarkWord) as RemarkFate[]).map((value) => ({ value, label: remarkWord[value] }));

/** What each fate does, so that nobody has to guess. */
const does: Record<RemarkFate, string> = {
  seen: 'Printed for the next technician.',
  done: 'Printed under what was done.',
  left: 'Printed under what was left open.',
  unsafe: 'Nothing runs the engine until it is done; it leads the report.',
  watch: 'Printed for the owner, under what to watch.',
  toCome: 'Printed under what is still to come.',
  forOwner: 'Printed for the owner.',
  shopOnly: 'Stays in the shop: on no report.',
};

interface Draft {
  fate: RemarkFate;
  text: string;
  /** What it is about: a gauge line's key, or a part's with part: before it. */
  about: string;
}

const PART = 'part:';

const empty: Draft = { fate: 'seen', text: '', about: '' };

/** A note in words, with a fate: on the whole tray or on one line. It opens on one key at every station. */
export function RemarkDialog({ tray, station, onClose }: { tray: Tray; station: Station; onClose: () => void }) {
  const person = usePerson();
  const mayWrite = useAllowed('checkIn');
  const work = useRecord<NoteOf<'remark'>>(tray.number);
  // Kept as it is typed, like any other reading.
  const [draft, keep, clear] = useKept(`${person.id}:${tray.number}:remark`, empty);
  const [missing, setMissing] = useState(false);
  const hasParts = station === 'strip' || station === 'build' || station === 'cleaning';
  const ledger = useLedger(tray.number, hasParts);
  const parts = (hasParts ? (ledger.data?.lines ?? []) : []).map(({ part }) => ({
    key: PART + part.key,
    label: part.label,
  }));
  const things = [...tray.lines.filter((line) => line.station === station), ...parts];
  const about = things.find((thing) => thing.key === draft.about);
  const submit = async (): Promise<void> => {
    const text = draft.text.trim();
    setMissing(text === '');
    if (text === '') return;
    const done = await work.record({
      kind: 'remark',
      fate: draft.fate,
      text,
      at: station,
      line: about && !about.key.startsWith(PART) ? about.key : null,
      part: about?.key.startsWith(PART) ? about.key.slice(PART.length) : null,
      ends: null,
    });
    if (done) {
      clear();
      onClose();
    }
  };
  const standing = remarksOf(tray);
  return (
    <Dialog title={`A note on tray ${tray.number}`} open onOpenChange={onClose}>
      <form
        className="grid gap-3"
        noValidate
        onSubmit={(event) => {
          event.preventDefault();
          void submit();
        }}
      >
        {work.problem && <Notice title={work.problem.title}>{work.problem.detail}</Notice>}
        <TextArea
          label="What is there to say"
          rows={3}
          maxLength={500}
          value={draft.text}
          problem={missing ? 'Write what there is to say.' : undefined}
          onChange={(event) => keep({ ...draft, text: event.target.value })}
        />
        <div>
          <Choice
            label="What becomes of it"
            value={draft.fate}
            options={fates}
            onChange={(fate) => keep({ ...draft, fate })}
            slim
          />
          <p className="text-mute pt-1.5">{does[draft.fate]}</p>
        </div>
        {things.length > 0 && (
          <SelectField
            label="About"
            value={about?.key ?? ''}
            onChange={(event) => keep({ ...draft, about: event.target.value })}
          >
            <option value="">the whole tray</option>
            {things.map((thing) => (
              <option key={thing.key} value={thing.key}>
                {thing.label}
              </option>
            ))}
          </SelectField>
        )}
        <div className="flex gap-3">
          <Button type="submit" look="hands" disabled={!mayWrite || work.busy}>
            Write it down
          </Button>
          <Button look="quiet" onClick={onClose}>
            Leave it
          </Button>
        </div>
      </form>
      {standing.length > 0 && (
        <div className="border-line mt-4 border-t pt-3">
          <h3 className="text-lead">Notes on this tray</h3>
          <RemarkList tray={tray} remarks={standing} />
        </div>
      )}
    </Dialog>
  );
}
