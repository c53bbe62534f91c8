import { Card } from '../../ui/card';
import { useRef, useState } from 'react';
import type { CheckValue, FaultWords, Line, Said, Trace, TraceNote, TraceView, Tray } from '../../api/client';
import { GaugeLine } from '../../gauge/GaugeLine';
import { useKept } from '../../outbox/drafts';
import { usePerson, useUnits } from '../../session/session';
import { stationWord, trayPath } from '../../shell/stations';
import { Button, LinkButton, OffBecause } from '../../ui/button';
import { CautionNote } from '../../ui/caution';
import { Choice } from '../../ui/choice';
import { percent, say } from '../../units/format';
import { FixDone } from './FixDone';

const said = [
  { value: 'present', label: 'Yes' },
  { value: 'absent', label: 'No' },
  { value: 'couldNotTell', label: 'Could not tell' },
] as const;

const noAnswers: Record<string, Said> = {};

interface Props {
  tray: Tray;
  trace: Trace;
  /** The bench part each cause sits at. */
  parts: TraceView['parts'];
  words: FaultWords;
  /** Quick tests on which what it asks is read as a number. */
  lines: Line[];
  /** A check chosen instead of the best one. */
  chosen: CheckValue | null;
  mayRecord: boolean;
  record: (note: TraceNote) => Promise<boolean>;
  onLeave: () => void;
}

/** How much longer another check takes than the best one. */
function slower(chosen: CheckValue, trace: Trace): string {
  const best = trace.checks[0]?.expectedMinutes ?? trace.fixMinutes;
  const more = Math.round(chosen.expectedMinutes - best);
  return more < 1 ? 'As quick as the best.' : `About ${more} min longer than the best way.`;
}

/** What has to be known before a chosen check is asked in its place. */
const askedFirst = (value: CheckValue, trace: Trace): CheckValue =>
  !value.before
    ? value
    : (trace.checks.find(({ check }) => check.id === value.before?.id) ?? {
        ...value,
        check: value.before,
        minutes: value.before.minutes,
        tells: [],
        first: null,
        firstWords: null,
      });

/** The one thing to do next, what it would tell, and the answers it asks for. */
export function NextPanel({ tray, trace, parts, words, lines, chosen: wanted, mayRecord, record, onLeave }: Props) {
  const units = useUnits();
  const before = wanted?.before ?? null;
  const chosen = wanted && askedFirst(wanted, trace);
  const { next } = trace;
  const title = {
    check: 'Next best check',
    fix: 'Put it right',
    recheck: 'See what is left',
    refer: 'Send it on',
    done: 'Done',
  }[next.kind];
  // A chosen check has the same precondition, caution and answers; only its place in the ranking is another.
  const checkId = chosen ? chosen.check.id : next.checkId;
  const tells = chosen ? chosen.tells : next.tells;
  const open = chosen ? chosen.check.reveals.filter((id) => words.findings.some((f) => f.id === id)) : next.asks;
  // The answers that tell most come first.
  const rank = (id: string): number => tells.findIndex((t) => t.findingId === id);
  const asks = [...open].sort((a, b) => (rank(a) < 0 ? 99 : rank(a)) - (rank(b) < 0 ? 99 : rank(b)));
  const caution = chosen ? chosen.caution : next.caution;
  const minutes = chosen ? chosen.minutes : next.minutes;
  const first = chosen ? chosen.first : next.first;
  const firstWords = chosen ? chosen.firstWords : next.firstWords;
  return (
    <Card label="Next step" pad="none" className="block">
      <div className="px-4 pt-3 pb-3">
        <div className="flex flex-wrap items-baseline justify-between gap-x-4">
          <p className="text-mute text-note font-strong">
            {chosen ? 'Another check' : title}
            {tray.next.station !== 'faults' && ` · the tray goes on at ${stationWord(tray.next.station)}`}
          </p>
          {minutes > 0 && <p className="num font-bold">{Math.round(minutes)} min</p>}
        </div>
        <h2 tabIndex={-1} className="text-title leading-snug outline-none">
          {chosen ? `${chosen.check.label}.` : say(next.do, units)}
        </h2>
        <p className="text-mute mt-0.5 leading-snug">
          {before && `Before “${wanted?.check.label ?? ''}”: ${wanted?.beforeWords ?? ''}. `}
          {chosen && !before ? slower(chosen, trace) : !before && say(next.why, units)}
        </p>
        {chosen && (
          <Button look="quiet" onClick={onLeave}>
            Back to the best next step
          </Button>
        )}
        {asks.length > 0 && (
          <Answers
            tray={tray.number}
            checkId={checkId}
            asks={asks}
            words={words}
            tells={tells}
            first={first}
            firstWords={firstWords}
            mayRecord={mayRecord}
            record={record}
          />
        )}
        {lines.length > 0 && (
          <div className="border-line mt-2 border-t pt-2">
            <p className="text-mute text-note font-strong">{asks.length > 0 ? 'Or as a number' : 'As a number'}</p>
            <OffBecause why={firstWords && `First: ${firstWords}.`}>
              {lines.map((line) => (
                <GaugeLine
                  key={line.key}
                  tray={tray.number}
                  line={line}
                  locked={!mayRecord || first !== null}
                  way={undefined}
                  history={tray.logbook.filter((entry) => entry.lineKey === line.key)}
                />
              ))}
            </OffBecause>
          </div>
        )}
        {!chosen && next.firstWords && next.kind === 'fix' && (
          <p className="text-unsure mt-1 font-bold">First: {next.firstWords}.</p>
        )}
        {!chosen && (next.kind === 'fix' || next.kind === 'refer') && next.causeId && (
          <>
            <PartLink tray={tray.number} trace={trace} part={parts[next.causeId]} />
            <FixDone
              tray={tray.number}
              causeId={next.causeId}
              label={words.causes.find((one) => one.id === next.causeId)?.label ?? ''}
              refer={next.kind === 'refer'}
              mayRecord={mayRecord}
              record={record}
            />
          </>
        )}
        {!chosen && next.kind === 'done' && (
          <LinkButton
            look="hands"
            className="mt-2.5"
            to={trayPath(tray.number, tray.next.station === 'faults' ? 'kits' : tray.next.station)}
          >
            Go on
          </LinkButton>
        )}
      </div>
      {caution && <CautionNote caution={caution} />}
    </Card>
  );
}

function Answers({
  tray,
  checkId,
  asks,
  words,
  tells,
  first,
  firstWords,
  mayRecord,
  record,
}: {
  tray: number;
  checkId: string | null;
  asks: string[];
  words: FaultWords;
  tells: Trace['next']['tells'];
  first: Trace['next']['first'];
  firstWords: string | null;
  mayRecord: boolean;
  record: (note: TraceNote) => Promise<boolean>;
}) {
  const person = usePerson();
  const [answers, keep, clear] = useKept(`${person.id}:${tray}:answers:${checkId ?? 'recheck'}`, noAnswers);
  const [missing, setMissing] = useState(false);
  const label = (id: string): string => words.findings.find((f) => f.id === id)?.label ?? id;
  const cause = (id: string | null): string => words.causes.find((c) => c.id === id)?.label ?? 'nothing in the table';
  const submit = async (all = answers): Promise<void> => {
    const given = asks.flatMap((id) => {
      const answer = all[id];
      return answer ? [{ findingId: id, said: answer, doubtful: false }] : [];
    });
    setMissing(given.length === 0);
    if (given.length === 0) return;
    const fromOwner = checkId === 'owner-story';
    if (await record({ kind: 'findings', checkId, answers: given, fromOwner })) clear();
  };
  const form = useRef<HTMLFormElement>(null);
  /** Enter goes to the next question that is not answered, then records. */
  const onward = (from: HTMLElement): void => {
    const groups = [...(form.current?.querySelectorAll<HTMLElement>('[data-choice]') ?? [])];
    const at = groups.findIndex((group) => group.contains(from));
    const next = [...groups.slice(at + 1), ...groups.slice(0, at)].find(
      (group) => !group.querySelector('[aria-checked="true"]'),
    );
    const item = next?.querySelector<HTMLElement>('[role="radio"]');
    if (item) item.focus();
    else form.current?.requestSubmit();
  };
  return (
    <form
      ref={form}
      className="mt-2"
      onSubmit={(event) => {
        event.preventDefault();
        void submit();
      }}
    >
      {first && firstWords && (
        <div className="border-unsure bg-unsure-soft mb-2 flex flex-wrap items-center justify-between gap-2 rounded-lg border-l-4 px-3 py-1.5">
          <p className="font-bold">First: {firstWords}.</p>
          <Button disabled={!mayRecord} onClick={() => void record({ kind: 'safety', condition: first })}>
            {first === 'oilChanged'
              ? 'Oil is changed'
              : first === 'oilRead'
                ? 'At its mark, smells of oil'
                : 'It is so'}
          </Button>
        </div>
      )}
      <OffBecause why={first && firstWords && `First: ${firstWords}.`}>
        <ul>
          {asks.map((id) => {
            const tell = tells.find((t) => t.findingId === id);
            return (
              <li
                key={id}
                className="border-line flex flex-wrap items-center justify-between gap-x-4 gap-y-1 border-t py-1.5"
              >
                <span className="min-w-0 flex-1 basis-56 leading-tight">
                  <span className="font-medium">{label(id)}?</span>
                  {tell?.ifPresent && (
                    <span className="text-mute block text-note">
                      Yes: {cause(tell.ifPresent)}, {percent(tell.ifPresentProbability)}. No: {cause(tell.ifAbsent)},{' '}
                      {percent(tell.ifAbsentProbability)}.
                    </span>
                  )}
                </span>
                <Choice
                  label={`${label(id)}?`}
                  value={answers[id] ?? ''}
                  options={said}
                  disabled={!mayRecord || first !== null}
                  onEnter={onward}
                  onChange={(answer) => keep({ ...answers, [id]: answer })}
                />
              </li>
            );
          })}
        </ul>
        <div className="border-line flex flex-wrap items-center gap-2 border-t pt-2">
          <Button type="submit" look="hands" disabled={!mayRecord || first !== null}>
            Record
          </Button>
          {asks.length > 1 && (
            <Button
              look="quiet"
              disabled={!mayRecord || first !== null}
              onClick={() =>
                void submit({ ...Object.fromEntries(asks.map((id) => [id, 'absent' as const])), ...answers })
              }
            >
              No to the rest
            </Button>
          )}
          {missing && (
            <p role="alert" className="text-bad font-medium">
              Answer at least one.
            </p>
          )}
        </div>
      </OffBecause>
    </form>
  );
}

/** The way to where it is put right: the part lit at Strip while it is in, at Clean once it is out. */
function PartLink({ tray, trace, part }: { tray: number; trace: Trace; part: TraceView['parts'][string] | undefined }) {
  if (!part) return null;
  const isOut = trace.evidence.apart === 'strip';
  const query = new URLSearchParams({ part: part.key, label: part.label });
  return (
    <LinkButton
      className="mt-2.5"
      to={`${isOut ? `${trayPath(tray, 'cleaning')}/passages` : trayPath(tray, 'strip')}?${query}`}
    >
      Go to {part.label} at {isOut ? 'Clean' : 'Strip'}
    </LinkButton>
  );
}
