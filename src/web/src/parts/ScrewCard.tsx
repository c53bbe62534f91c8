import type { Screw, Tray, TurnsNote } from '../api/client';
import { useKept } from '../outbox/drafts';
import { useOff, usePerson } from '../session/session';
import { useRecord } from '../shell/useRecord';
import { Button } from '../ui/button';
import { Card } from '../ui/card';
import { TextField } from '../ui/field';
import { moment, turns } from '../units/format';
import { TurnsChoice } from './TurnsChoice';

interface Props {
  tray: Tray;
  screws: Screw[];
  /** Most eighths that are taken. */
  most: number;
}

/** The screws whose turns are counted, where each stands, and what it was turned for. Nothing is shown where there are none. */
export function ScrewCard({ tray, screws, most }: Props) {
  const inPlace = screws.filter((screw) => screw.isIn);
  if (inPlace.length === 0) return null;
  return (
    <Card label="Screws" className="block">
      <h2 className="pb-1 text-part">Screws, turns out from a light seat</h2>
      <ul>
        {inPlace.map((screw) => (
          <OneScrew key={screw.part} tray={tray} screw={screw} most={most} />
        ))}
      </ul>
    </Card>
  );
}

interface Draft {
  from: number | null;
  to: number | null;
  why: string;
}

function OneScrew({ tray, screw, most }: { tray: Tray; screw: Screw; most: number }) {
  const mayRecord = useOff(tray) === undefined;
  const turned = useRecord<TurnsNote>(tray.number);
  const [draft, keep, drop] = useKept<Draft | null>(`${usePerson().id}:turns:${tray.number}:${screw.part}`, null);
  const errors = turned.problem?.errors ?? {};
  const record = async (of: Draft): Promise<void> => {
    if (of.to === null) return;
    const settled = await turned.record({
      kind: 'turns',
      part: screw.part,
      turnsEighths: of.to,
      fromEighths: screw.eighths === null ? of.from : null,
      why: of.why.trim() || null,
    });
    if (settled) drop();
  };
  return (
    <li className="border-line grid gap-2 border-t py-1.5">
      <div className="flex min-h-11 flex-wrap items-center gap-x-3">
        <span className="font-strong first-letter:uppercase max-sm:basis-full sm:min-w-48">{screw.label}</span>
        <span className="num text-part font-bold">{screw.eighths === null ? '–' : turns(screw.eighths)}</span>
        <span className="text-mute min-w-0 flex-1">
          {screw.eighths === null
            ? 'not counted yet'
            : screw.foundEighths !== null && screw.foundEighths !== screw.eighths
              ? `found at ${turns(screw.foundEighths)}`
              : ''}
        </span>
        {mayRecord && (
          <Button
            look="quiet"
            aria-expanded={draft !== null}
            aria-label={`Turned: ${screw.label}`}
            onClick={() => (draft ? drop() : keep({ from: null, to: screw.eighths, why: '' }))}
          >
            Turned
          </Button>
        )}
      </div>
      {screw.steps.length > 0 && (
        <ol aria-label={`How it was turned: ${screw.label}`} className="text-mute grid gap-0.5">
          {screw.steps.map((step) => (
            <li key={step.at}>
              {step.from === null ? 'to' : `${turns(step.from)} to`} {turns(step.to)}
              {step.why ? `, because: ${step.why}` : ''} · {step.by}, {moment(step.at)}
            </li>
          ))}
        </ol>
      )}
      {draft && mayRecord && (
        <form
          aria-label={`Turned: ${screw.label}`}
          className="grid gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            void record(draft);
          }}
        >
          {screw.eighths === null && (
            <div>
              <p className="font-strong">It stood at</p>
              <TurnsChoice
                label={`It stood at: ${screw.label}`}
                value={draft.from}
                most={most}
                onChange={(from) => keep({ ...draft, from })}
              />
            </div>
          )}
          <div>
            <p className="font-strong">It stands at</p>
            <TurnsChoice
              label={`It stands at: ${screw.label}`}
              value={draft.to}
              most={most}
              onChange={(to) => keep({ ...draft, to })}
            />
          </div>
          <div className="flex flex-wrap items-end gap-2">
            <div className="min-w-0 flex-1 basis-72">
              <TextField
                label="Why"
                value={draft.why}
                problem={errors['note.why']?.[0]}
                onChange={(event) => keep({ ...draft, why: event.target.value })}
              />
            </div>
            <Button type="submit" look="hands" disabled={draft.to === null || turned.busy}>
              Record it
            </Button>
          </div>
          {turned.problem && !errors['note.why'] && (
            <p role="alert" className="text-bad font-medium">
              {Object.values(errors)[0]?.[0] ?? turned.problem.title}
            </p>
          )}
        </form>
      )}
    </li>
  );
}
