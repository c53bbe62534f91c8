import { Plus, Ruler } from 'lucide-react';
import { useState } from 'react';
import type { NoteOf, PartKind, Tray } from '../../api/client';
import { useKept } from '../../outbox/drafts';
import { useRecord } from '../../shell/useRecord';
import { usePerson, useUnits } from '../../session/session';
import { useParts } from '../../shell/queries';
import { BareButton, Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { Dialog } from '../../ui/dialog';
import { TextField } from '../../ui/field';
import { Notice } from '../../ui/states';
import { say, sign } from '../../units/format';

/** The old parts on the bench: which have been measured, and measuring one. */
export function OldParts({ tray, mayMeasure }: { tray: Tray; mayMeasure: boolean }) {
  const parts = useParts();
  const [measuring, setMeasuring] = useState<string | null>(null);
  const [more, setMore] = useState(false);
  const kind = parts.data?.find((part) => part.name === measuring);
  const wanted = tray.wanted.map((part) => part.part);
  const others = (parts.data ?? []).filter(
    (part) => part.families.includes(tray.facts.family) && !wanted.includes(part.name) && part.features.length > 0,
  );
  return (
    <div>
      <h3 className="text-mute pb-1 text-note font-strong">
        Old parts on the bench: measure one when the sheet and the part may differ
      </h3>
      <ul aria-label="Old parts" className="flex flex-wrap gap-1.5">
        {[...wanted, ...(more ? others.map((part) => part.name) : [])].map((name) => {
          const measured = Object.keys(tray.oldParts.find((part) => part.part === name)?.features ?? {}).length;
          const measurable = (parts.data?.find((part) => part.name === name)?.features.length ?? 0) > 0;
          return (
            <li key={name}>
              <BareButton
                disabled={!mayMeasure}
                why={measurable || !mayMeasure ? undefined : 'Nothing of it is compared by measure.'}
                onClick={() => setMeasuring(name)}
                aria-label={`Measure the old ${name}${measured > 0 ? `, ${measured} measured` : ''}`}
                className={`inline-flex min-h-11 items-center gap-1.5 rounded-lg border-[1.5px] px-3 font-medium
                  aria-disabled:opacity-60 ${measured > 0 ? 'border-ink bg-steel' : 'border-line-strong'}`}
              >
                <Ruler aria-hidden size={16} /> {name}
                {measured > 0 && <span className="num text-mute">{measured}</span>}
              </BareButton>
            </li>
          );
        })}
        {!more && others.length > 0 && mayMeasure && (
          <li>
            <Button look="quiet" onClick={() => setMore(true)}>
              <Plus aria-hidden size={16} /> Another part
            </Button>
          </li>
        )}
      </ul>
      {kind && <MeasureDialog tray={tray} kind={kind} onClose={() => setMeasuring(null)} />}
    </div>
  );
}

function MeasureDialog({ tray, kind, onClose }: { tray: Tray; kind: PartKind; onClose: () => void }) {
  const units = useUnits();
  const person = usePerson();
  const before = tray.oldParts.find((part) => part.part === kind.name)?.features ?? {};
  const [typed, keep, clear] = useKept<Record<string, string>>(`${person.id}:${tray.number}:old:${kind.name}`, before);
  const { record, busy, problem } = useRecord<NoteOf<'oldPart'>>(tray.number);
  const wanted = tray.wanted.find((part) => part.part === kind.name);
  const save = async (): Promise<void> => {
    const note = { kind: 'oldPart', part: kind.name, quantity: wanted?.quantity ?? 1, features: typed, units } as const;
    if (!(await record(note))) return;
    clear();
    onClose();
  };
  return (
    <Dialog
      title={`The old ${kind.name}`}
      description="As it came out. Leave empty what cannot be measured."
      open
      onOpenChange={onClose}
    >
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          void save();
        }}
      >
        {problem && Object.keys(problem.errors).length === 0 && <Notice title={problem.title}>{problem.detail}</Notice>}
        {kind.features.map((feature) => {
          const sheet = wanted?.features[feature.name]?.find((value) => value.from === 'sheet');
          const hint = `${feature.measure}${sheet ? `; the sheet says ${say(sheet.value.said, units)}` : ''}`;
          const set = (value: string): void => keep({ ...typed, [feature.name]: value });
          return feature.kind === 'word' ? (
            <div key={feature.name} className="grid gap-1">
              <p className="font-strong">{feature.name}</p>
              <Choice
                label={feature.name}
                value={typed[feature.name] ?? ''}
                options={feature.words.map((word) => ({ value: word, label: word }))}
                onChange={set}
                onClear={() => set('')}
              />
              <p className="text-mute text-note">{hint}</p>
            </div>
          ) : (
            <TextField
              key={feature.name}
              label={feature.kind === 'squeeze' ? 'groove depth' : feature.name}
              hint={hint}
              problem={problem?.errors[`note.features.${feature.name}`]?.[0]}
              placeholder={
                feature.kind === 'ring' ? 'AS568-008 or 6 × 1' : feature.kind === 'count' ? '' : sign('length', units)
              }
              className="num max-w-56 text-title"
              value={typed[feature.name] ?? ''}
              maxLength={40}
              onChange={(e) => set(e.target.value)}
            />
          );
        })}
        <div className="flex flex-wrap gap-3">
          <Button type="submit" look="hands" disabled={busy}>
            Record it
          </Button>
          <Button look="quiet" onClick={onClose}>
            Leave it
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
