import { useQuery, type UseQueryResult } from '@tanstack/react-query';
import { useCallback, useEffect, useRef, useState } from 'react';
import {
  api,
  ask,
  type BuildAdvice,
  type Fate,
  type LedgerLine,
  type LedgerNote,
  type LedgerView,
  type NewPartSource,
  type Tray,
} from '../../api/client';
import { useKept } from '../../outbox/drafts';
import { usePerson, useUnits } from '../../session/session';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { TextField } from '../../ui/field';
import { focusAsked } from '../../ui/focus';
import { say, torque, turns } from '../../units/format';
import { foundWords } from '../../parts/found';
import { HoleChoice } from '../../parts/HoleChoice';
import { PartPhotos } from '../../parts/PartPhotos';
import { TurnsChoice } from '../../parts/TurnsChoice';
import { WayChoice } from '../../parts/WayChoice';
import { keys } from '../../api/keys';
import { FromElsewhere, gotten, nothingGot, type Got } from './FromElsewhere';

interface Props {
  tray: Tray;
  view: LedgerView;
  line: LedgerLine;
  advice: BuildAdvice | undefined;
  mayRecord: boolean;
  errors: Record<string, string[]>;
  onRecord: (note: LedgerNote) => Promise<boolean>;
}

/** One part on its way back in: what to look at, which way round, how firmly, and what becomes of it. */
export function FitForm({ tray, view, line, advice, mayRecord, errors, onRecord }: Props) {
  const { part, found } = line;
  const person = usePerson();
  const units = useUnits();
  const [draft, keep, clear] = useKept<{
    way: string;
    reason: string;
    eighths: number | null;
    hole?: string;
    match?: string;
    got?: Got;
  }>(`${person.id}:build:${tray.number}:${part.key}`, { way: '', reason: '', eighths: null });
  const cameOutOf = found?.hole?.trim() ?? '';
  const [another, setAnother] = useState((draft.hole ?? '') !== '' && draft.hole !== cameOutOf);
  const [asked, setSources] = useState(found?.verdict === 'renew' || line.state === 'missing' || part.newEachTime);
  const sources = asked || 'note.nearMatch' in errors;
  const may = (fate: Fate): boolean => line.fates.includes(fate);
  const fromKit = sources && may('renewed') && part.kitPart !== null;
  const offers = useQuery({
    queryKey: keys.newParts(tray.number, part.key),
    queryFn: () =>
      ask(
        api.GET('/api/trays/{number}/ledger/new-parts', {
          params: { path: { number: tray.number }, query: { part: part.key } },
        }),
      ),
    enabled: fromKit,
  });
  // A gasket that no kit brings is cut from sheet.
  const isCut =
    fromKit &&
    part.material === 'gasket' &&
    may('made') &&
    offers.data?.every((one) => one.verdict === 'differs') === true;
  const sent = useRef(false);
  const form = useRef<HTMLDivElement>(null);
  const toNext = useCallback((from?: HTMLElement): void => void focusAsked(form.current, from), []);
  const isThere = !fromKit || offers.isFetched;
  useEffect(() => toNext(), [toNext, isThere]);
  const start = view.starts.find((one) => one.part === part.key);
  const firm = view.torques.find((one) => one.part === part.key);
  // What nobody has set is not said to be set.
  const { eighths } = draft;
  const { got } = draft;
  const end = async (fate: Fate, from?: { number: string; fromShelf: boolean } | Got): Promise<void> => {
    // A second press while the first is on its way is the same press; another part does not wait for it.
    if (sent.current) return;
    sent.current = true;
    try {
      const settled = await onRecord({
        kind: 'back',
        part: part.key,
        fate,
        way: fate === 'leftOff' || fate === 'scrapped' ? null : draft.way || null,
        item: from && 'number' in from ? from.number : null,
        fromShelf: from && 'number' in from ? from.fromShelf : false,
        elsewhere: from && 'origin' in from ? gotten(from) : null,
        turnsEighths: part.asks.includes('turns') && fate !== 'leftOff' && fate !== 'scrapped' ? eighths : null,
        reason: draft.reason.trim() || null,
        hole: (fate !== 'leftOff' && fate !== 'scrapped' && draft.hole?.trim()) || null,
        nearMatch: nearOf(fate === 'renewed' ? (from && 'match' in from ? from.match : draft.match) : ''),
      });
      if (settled) clear();
    } finally {
      sent.current = false;
    }
  };
  const names = (keys: readonly string[]): string =>
    keys.map((key) => view.lines.find((one) => one.part.key === key)?.part.label ?? key).join(', ');
  return (
    <div ref={form} role="group" aria-label={`Fit: ${part.label}`} className="grid gap-2.5">
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
        <div data-asked={mayRecord && draft.way === '' ? '' : undefined}>
          <WayChoice
            part={part}
            label={`Which way round it goes in: ${part.label}`}
            value={draft.way}
            problem={errors['note.way']?.[0]}
            disabled={!mayRecord}
            onChange={(way) => keep({ ...draft, way })}
            onEnter={toNext}
          />
        </div>
      )}
      {cameOutOf !== '' && (
        <div
          className="grid justify-items-start gap-1.5"
          data-asked={!mayRecord || draft.hole || another ? undefined : ''}
        >
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
            onEnter={toNext}
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
              {eighths === null && mayRecord && (
                <Button className="mr-2" data-asked onClick={() => keep({ ...draft, eighths: start.turnsEighths })}>
                  Set to {turns(start.turnsEighths)} out
                </Button>
              )}
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
              <Button look={sources ? 'plain' : 'hands'} onClick={() => void end('refitted')}>
                {may('scrapped') ? 'Put it back' : sources ? 'The old one is in' : 'It is in'}
              </Button>
            )}
            {may('renewed') && (
              <Button aria-expanded={sources} onClick={() => setSources(!sources)}>
                A new one
              </Button>
            )}
            {may('made') && (
              <Button look={isCut && !got ? 'hands' : 'plain'} onClick={() => void end('made')}>
                Made one
              </Button>
            )}
            {may('scrapped') ? (
              <Button look="hands" onClick={() => void end('scrapped')}>
                Throw it out
              </Button>
            ) : (
              <Button look="quiet" className="px-2!" onClick={() => void end('leftOff')}>
                Leave it off, with a reason
              </Button>
            )}
          </div>
          {sources && may('renewed') && part.asks.includes('match') && (
            <div className="grid justify-items-start gap-1" data-asked={draft.match ? undefined : ''}>
              <Choice
                label={`The new one: ${part.label}`}
                value={draft.match ?? ''}
                options={[
                  { value: 'same', label: 'The same spring' },
                  { value: 'near', label: 'A near match' },
                ]}
                disabled={!mayRecord}
                onChange={(match) => keep({ ...draft, match })}
                onEnter={toNext}
              />
              {draft.match === 'near' && (
                <p className="font-medium">
                  It pulls otherwise: read what it governs at Choke and Prove before it goes.
                </p>
              )}
            </div>
          )}
          {fromKit && <Sources offers={offers} onTake={(source) => void end('renewed', source)} />}
          {sources && may('renewed') && part.kitPart === null && (
            <Button look="hands" className="justify-self-start" onClick={() => void end('renewed')}>
              The new one is in
            </Button>
          )}
          {sources && may('renewed') && (
            <Button
              look="quiet"
              className="justify-self-start px-0!"
              aria-expanded={got !== undefined}
              onClick={() => keep({ ...draft, got: got ? undefined : nothingGot })}
            >
              From elsewhere: bought, brought, off a roll
            </Button>
          )}
          {sources && may('renewed') && got && (
            <FromElsewhere
              part={part.label}
              currency={tray.currency}
              value={got}
              errors={errors}
              onChange={(next) => keep({ ...draft, got: next })}
              onTake={() => void end('renewed', got)}
            />
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

/** Whether a new one is only near to the old one; null while nobody said. */
const nearOf = (match: string | undefined): boolean | null => (match ? match === 'near' : null);

/** What a new part can come from: what was decided on at Kit first, then the shelf. */
function Sources({
  offers,
  onTake,
}: {
  offers: UseQueryResult<NewPartSource[]>;
  onTake: (source: { number: string; fromShelf: boolean }) => void;
}) {
  const units = useUnits();
  const [all, setAll] = useState(false);
  const found = offers.data ?? [];
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
            look={source === shown[0] && source.verdict !== 'differs' ? 'hands' : 'plain'}
            aria-label={`It is in, from ${source.number}`}
            onClick={() => onTake(source)}
          >
            It is in
          </Button>
        </li>
      ))}
      {offers.isError && (
        <li className="py-2">What is on the shelf needs the server; the old one can go in meanwhile.</li>
      )}
      {offers.data && shown.length === 0 && (
        <li className="py-2">None on the shelf that fits. Book one in at Stock, make one, or decide again at Kit.</li>
      )}
      {!all && found.length > shown.length && (
        <li>
          <Button look="quiet" className="px-0!" onClick={() => setAll(true)}>
            {found.length - shown.length === 1
              ? '1 more that differs or is further down'
              : `${found.length - shown.length} more that differ or are further down`}
          </Button>
        </li>
      )}
    </ul>
  );
}
