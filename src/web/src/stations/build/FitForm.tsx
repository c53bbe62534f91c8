import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import {
  api,
  ask,
  type BuildAdvice,
  type Fate,
  type LedgerLine,
  type LedgerNote,
  type LedgerView,
  type Tray,
} from '../../api/client';
import { useKept } from '../../outbox/drafts';
import { usePerson, useUnits } from '../../session/session';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { TextField } from '../../ui/field';
import { say, torque, turns } from '../../units/format';
import { foundWords } from '../../parts/found';
import { HoleChoice } from '../../parts/HoleChoice';
import { PartPhotos } from '../../parts/PartPhotos';
import { TurnsChoice } from '../../parts/TurnsChoice';
import { WayChoice } from '../../parts/WayChoice';
import { keys } from '../../shell/keys';

interface Props {
  tray: Tray;
  view: LedgerView;
  line: LedgerLine;
  advice: BuildAdvice | undefined;
  mayRecord: boolean;
  busy: boolean;
  errors: Record<string, string[]>;
  onRecord: (note: LedgerNote) => Promise<boolean>;
}

/** One part on its way back in: what to look at, which way round, how firmly, and what becomes of it. */
export function FitForm({ tray, view, line, advice, mayRecord, busy, errors, onRecord }: Props) {
  const { part, found } = line;
  const person = usePerson();
  const units = useUnits();
  const [draft, keep, clear] = useKept<{
    way: string;
    reason: string;
    eighths: number | null;
    hole?: string;
    match?: string;
  }>(`${person.id}:build:${tray.number}:${part.key}`, { way: '', reason: '', eighths: null });
  const cameOutOf = found?.hole?.trim() ?? '';
  const [another, setAnother] = useState((draft.hole ?? '') !== '' && draft.hole !== cameOutOf);
  const [asked, setSources] = useState(found?.verdict === 'renew' || line.state === 'missing' || part.newEachTime);
  const sources = asked || 'note.nearMatch' in errors;
  const main = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    if (!document.activeElement?.matches('input, textarea')) main.current?.focus({ preventScroll: true });
  }, []);
  const start = view.starts.find((one) => one.part === part.key);
  const firm = view.torques.find((one) => one.part === part.key);
  const eighths = draft.eighths ?? start?.turnsEighths ?? null;
  const may = (fate: Fate): boolean => line.fates.includes(fate);
  const end = async (fate: Fate, from?: { number: string; fromShelf: boolean }): Promise<void> => {
    const settled = await onRecord({
      kind: 'back',
      part: part.key,
      fate,
      way: fate === 'leftOff' || fate === 'scrapped' ? null : draft.way || null,
      item: from?.number ?? null,
      fromShelf: from?.fromShelf ?? false,
      turnsEighths: part.asks.includes('turns') && fate !== 'leftOff' && fate !== 'scrapped' ? eighths : null,
      reason: draft.reason.trim() || null,
      hole: (fate !== 'leftOff' && fate !== 'scrapped' && draft.hole?.trim()) || null,
      nearMatch: fate === 'renewed' && draft.match ? draft.match === 'near' : null,
    });
    if (settled) clear();
  };
  const names = (keys: readonly string[]): string =>
    keys.map((key) => view.lines.find((one) => one.part.key === key)?.part.label ?? key).join(', ');
  return (
    <div role="group" aria-label={`Fit: ${part.label}`} className="grid gap-2.5">
      <div>
        <h3 className="text-figure leading-tight font-heavy first-letter:uppercase">{part.label}</h3>
        <p className="text-mute">Came out: {foundWords(line, units)}</p>
      </div>
      {advice && advice.first.length > 0 && (
        <p className="bg-unsure-soft text-unsure rounded-lg px-3 py-2 font-bold">Before it: {names(advice.first)}.</p>
      )}
      {advice?.trap && <p className="text-title leading-snug font-bold">{advice.trap}</p>}
      {advice?.reason && <p className="leading-snug">{advice.reason}</p>}
      {part.ways.length > 0 && (
        <WayChoice
          part={part}
          label={`Which way round it goes in: ${part.label}`}
          value={draft.way}
          problem={errors['note.way']?.[0]}
          onChange={(way) => keep({ ...draft, way })}
        />
      )}
      {cameOutOf !== '' && (
        <div className="grid justify-items-start gap-1.5">
          <Choice
            label={`Which hole it went into: ${part.label}`}
            value={another ? 'another' : draft.hole === cameOutOf ? 'same' : ''}
            options={[
              { value: 'same', label: `As it came out: ${cameOutOf}` },
              { value: 'another', label: 'Another hole' },
            ]}
            invalid={'note.hole' in errors}
            disabled={!mayRecord}
            onChange={(which) => {
              setAnother(which === 'another');
              keep({ ...draft, hole: which === 'same' ? cameOutOf : '' });
            }}
          />
          {another && (
            <>
              <HoleChoice
                label={`The hole it went into: ${part.label}`}
                value={draft.hole ?? ''}
                onChange={(hole) => keep({ ...draft, hole })}
              />
              <TextField
                label="Which hole it went into"
                value={draft.hole ?? ''}
                onChange={(event) => keep({ ...draft, hole: event.target.value })}
              />
            </>
          )}
          {errors['note.hole']?.[0] && (
            <p role="alert" className="text-bad font-medium">
              {errors['note.hole'][0]}
            </p>
          )}
        </div>
      )}
      {part.asks.includes('turns') && (
        <div>
          <TurnsChoice
            label={`Turns out: ${part.label}`}
            value={eighths}
            most={view.mostEighths}
            onChange={(next) => keep({ ...draft, eighths: next })}
          />
          {start && (
            <p className="text-mute">
              Starts at {turns(start.turnsEighths)} out
              {start.foundEighths !== null
                ? `, was found at ${turns(start.foundEighths)}`
                : start.notCounted
                  ? ', was not counted'
                  : ''}
              . {start.source}. By fingertips only: force ruins the seat.
            </p>
          )}
        </div>
      )}
      {firm && part.material === 'metal' && !part.asks.includes('turns') && (
        <p>
          {firm.torqueNm === null ? (
            firm.source
          ) : (
            <>
              <span className="num text-part font-bold">{torque(firm.torqueNm, units)}</span>{' '}
              <span className="text-mute">{firm.source}</span>
            </>
          )}
        </p>
      )}
      {firm?.torqueNm != null && part.material !== 'metal' && (
        <p>
          <span className="num text-part font-bold">{torque(firm.torqueNm, units)}</span>{' '}
          <span className="text-mute">{firm.source}</span>
        </p>
      )}
      <PartPhotos tray={tray.number} part={part.key} mayAdd={false} />
      {mayRecord && (
        <>
          <div className="flex flex-wrap gap-2">
            {may('refitted') && (
              <Button
                ref={sources ? undefined : main}
                look={sources ? 'plain' : 'hands'}
                disabled={busy}
                onClick={() => void end('refitted')}
              >
                {may('scrapped') ? 'Put it back' : sources ? 'The old one is in' : 'It is in'}
              </Button>
            )}
            {may('renewed') && (
              <Button aria-expanded={sources} onClick={() => setSources(!sources)}>
                A new one
              </Button>
            )}
            {may('made') && (
              <Button disabled={busy} onClick={() => void end('made')}>
                Made one
              </Button>
            )}
            {may('scrapped') ? (
              <Button look="hands" disabled={busy} onClick={() => void end('scrapped')}>
                Throw it out
              </Button>
            ) : (
              <Button look="quiet" className="px-2" disabled={busy} onClick={() => void end('leftOff')}>
                Leave it off, with a reason
              </Button>
            )}
          </div>
          {sources && may('renewed') && part.asks.includes('match') && (
            <div className="grid justify-items-start gap-1">
              <Choice
                label={`The new one: ${part.label}`}
                value={draft.match ?? ''}
                options={[
                  { value: 'same', label: 'The same spring' },
                  { value: 'near', label: 'A near match' },
                ]}
                disabled={!mayRecord}
                onChange={(match) => keep({ ...draft, match })}
              />
              {draft.match === 'near' && (
                <p className="font-medium">
                  It pulls otherwise: read what it governs at Choke and Prove before it goes.
                </p>
              )}
            </div>
          )}
          {sources && may('renewed') && part.kitPart !== null && (
            <Sources tray={tray.number} part={part.key} busy={busy} onTake={(source) => void end('renewed', source)} />
          )}
          {sources && may('renewed') && part.kitPart === null && (
            <Button look="hands" className="justify-self-start" disabled={busy} onClick={() => void end('renewed')}>
              The new one is in
            </Button>
          )}
          {errors['note.nearMatch']?.[0] && (
            <p role="alert" className="text-bad font-medium">
              {errors['note.nearMatch'][0]}
            </p>
          )}
          <TextField
            label={`Reason or remark${may('renewed') || may('scrapped') ? '' : ', for leaving it off'}`}
            value={draft.reason}
            problem={errors['note.reason']?.[0]}
            onChange={(event) => keep({ ...draft, reason: event.target.value })}
          />
        </>
      )}
    </div>
  );
}

/** What a new part can come from: what was decided on at Kit first, then the shelf. */
function Sources({
  tray,
  part,
  busy,
  onTake,
}: {
  tray: number;
  part: string;
  busy: boolean;
  onTake: (source: { number: string; fromShelf: boolean }) => void;
}) {
  const units = useUnits();
  const [all, setAll] = useState(false);
  const sources = useQuery({
    queryKey: keys.newParts(tray, part),
    queryFn: () =>
      ask(api.GET('/api/trays/{number}/ledger/new-parts', { params: { path: { number: tray }, query: { part } } })),
  });
  const first = useRef<HTMLButtonElement>(null);
  const ready = sources.isSuccess;
  useEffect(() => {
    // What was decided on at Kit is a key away.
    if (ready && !document.activeElement?.matches('input, textarea')) first.current?.focus({ preventScroll: true });
  }, [ready]);
  const found = sources.data ?? [];
  const shown = all ? found : found.filter((source) => source.verdict !== 'differs').slice(0, 3);
  return (
    <ul aria-label="A new one from" className="border-line border-t">
      {shown.map((source) => (
        <li
          key={source.number + String(source.fromShelf)}
          className="border-line flex items-center gap-3 border-b py-1.5"
        >
          <span className="min-w-0 flex-1 leading-tight">
            <span className="num font-bold">{source.number}</span> {source.name}
            <span className={`block text-note ${source.verdict === 'differs' ? 'text-bad font-strong' : 'text-mute'}`}>
              {source.fromShelf ? `${source.onHand} on the shelf` : 'chosen at Kit'}
              {source.why && ` · ${say(source.why, units)}`}
            </span>
          </span>
          <Button
            ref={source === shown[0] ? first : undefined}
            look={source === shown[0] && source.verdict !== 'differs' ? 'hands' : 'plain'}
            disabled={busy}
            aria-label={`In, from ${source.number}`}
            onClick={() => onTake(source)}
          >
            It is in
          </Button>
        </li>
      ))}
      {sources.isError && (
        <li className="py-2">What is on the shelf needs the server; the old one can go in meanwhile.</li>
      )}
      {sources.data && shown.length === 0 && (
        <li className="py-2">None on the shelf that fits. Book one in at Stock, make one, or decide again at Kit.</li>
      )}
      {!all && found.length > shown.length && (
        <li>
          <Button look="quiet" className="px-0" onClick={() => setAll(true)}>
            {found.length - shown.length} more that differ or are further down
          </Button>
        </li>
      )}
    </ul>
  );
}
