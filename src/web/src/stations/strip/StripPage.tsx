import { Card } from '../../ui/card';
import { Check, Circle, CircleDashed, Undo2 } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { useSearchParams } from 'react-router';
import type { LedgerLine, LedgerNote, LedgerView, Tray } from '../../api/client';
import { useRecord } from '../../shell/useRecord';
import { useKeptParts } from '../../outbox/useKeptParts';
import { useOff, usePerson, useUnits } from '../../session/session';
import { useLedger } from '../../shell/queries';
import { announce } from '../../ui/announce';
import { Button } from '../../ui/button';
import { focusOnward, isFree } from '../../ui/focus';
import { Loading, Notice, Trouble } from '../../ui/states';
import { AddPart } from './AddPart';
import { FoundForm } from './FoundForm';
import { HasParts } from './HasParts';
import { JobChoice } from './JobChoice';
import { foundWords } from '../../parts/found';
import type { StationProps } from '../../tray/stationPage';

/** Every part that comes out is a line, in the order it comes off. */
export default function StripPage({ tray }: StationProps) {
  const ledger = useLedger(tray.number);
  if (ledger.isPending) return <Loading what="the ledger" />;
  if (!ledger.data) return <Trouble error={ledger.error} retry={() => void ledger.refetch()} />;
  return <Ledger tray={tray} view={ledger.data} />;
}

/** By then the ledger shows what was sent. */
const SHOWN_BY_MS = 8000;

function Ledger({ tray, view }: { tray: Tray; view: LedgerView }) {
  const person = usePerson();
  const mayRecord = useOff(tray) === undefined;
  const entries = useRecord<LedgerNote>(tray.number);
  const [picking, setPicking] = useState(false);
  // The part somebody was sent to.
  const lit = useSearchParams()[0].get('part');
  const [opened, setOpened] = useState<string | null>(lit);
  // Said at once: the device may have kept the entry, and the next part be drawn, before the request is known to run.
  const [sending, setSending] = useState(0);
  // What has just been sent is not the next one again, also in the moment in which it has gone out and the ledger, on a
  // busy server, is still the one of before: a press in it would be for the wrong part.
  const [justSent, setJustSent] = useState<ReadonlySet<string>>(new Set());
  const record = async (...notes: LedgerNote[]): Promise<boolean> => {
    const parts = notes.flatMap((note) =>
      note.kind === 'out' || note.kind === 'stays' ? [note.part] : note.kind === 'has' ? note.hasNot : [],
    );
    const undone = notes.flatMap((note) => (note.kind === 'undo' ? [note.part] : []));
    const without = (gone: string[]): void =>
      setJustSent((now) => new Set([...now].filter((part) => !gone.includes(part))));
    setSending((now) => now + 1);
    setJustSent((now) => new Set([...now, ...parts].filter((part) => !undone.includes(part))));
    try {
      const settled = await entries.record(...notes);
      if (settled) setTimeout(() => without(parts), SHOWN_BY_MS);
      else without(parts);
      return settled;
    } finally {
      setSending((now) => now - 1);
    }
  };
  const busy = entries.busy || sending > 0;
  const inJob = view.lines.filter((line) => line.isListed);
  const rest = view.lines.length - inJob.length;
  const pending = useKeptParts(tray.number, 'strip');
  const kept = new Set([...pending, ...justSent]);
  const next = inJob.find((line) => line.isToStrip && !kept.has(line.part.key));
  const hadNext = useRef(next !== undefined);
  const isDone = next === undefined;
  useEffect(() => {
    // The last one is out: on to what comes then.
    if (isDone && hadNext.current && isFree()) {
      announce('All of it is out.');
      focusOnward();
    }
    hadNext.current = !isDone;
  }, [isDone]);
  const groups = [...new Set(inJob.map((line) => line.part.group))];

  if (!view.job || picking) {
    return (
      <JobChoice
        view={view}
        mayRecord={mayRecord}
        onChoose={(job) =>
          void record({ kind: 'job', job }).then((settled) => {
            if (settled) setPicking(false);
          })
        }
        {...(view.job ? { onCancel: () => setPicking(false) } : {})}
      />
    );
  }
  /** What is written of parts that come out together: what is gone once they are out is not seen then. */
  const usually = (lines: LedgerLine[]): string =>
    [
      'as usual',
      lines.some(({ part }) => part.asks.includes('way') && part.wayGroup) ? 'which way not seen' : '',
      lines.some(({ part }) => part.asks.includes('turns')) ? 'turns not counted' : '',
    ]
      .filter((word) => word !== '')
      .join(', ');
  /** All of a group in one request. */
  const asUsual = (lines: LedgerLine[]): Promise<boolean> =>
    record(
      ...lines.map(
        ({ part }): LedgerNote => ({
          kind: 'out',
          part: part.key,
          verdict: view.usual[part.key] ?? 'clean',
          notCounted: part.asks.includes('turns'),
        }),
      ),
    );
  return (
    <Card label="Strip" className="grid content-start gap-2">
      <div className="flex flex-wrap items-baseline justify-between gap-x-4">
        <h2 className="text-title">{view.job.label}</h2>
        <p className="text-mute">
          {next ? `${view.toStrip} to go · Enter takes the next one` : ''}
          {mayRecord && (
            <button
              type="button"
              className="ml-3 min-h-11 underline underline-offset-4"
              onClick={() => setPicking(true)}
            >
              Another way
            </button>
          )}
        </p>
      </div>
      {entries.problem && (
        <Notice title={Object.values(entries.problem.errors)[0]?.[0] ?? entries.problem.title}>
          {entries.problem.detail}
        </Notice>
      )}
      {view.job.parts?.length === 0 && <p>{view.job.note}</p>}
      {mayRecord && view.job.parts?.length !== 0 && (
        <HasParts
          key={view.job.key}
          draft={`${person.id}:has:${tray.number}`}
          view={view}
          busy={busy}
          onRecord={record}
        />
      )}
      {groups.map((group) => {
        const lines = inJob.filter((line) => line.part.group === group);
        // What is on its way is not sent again.
        const open = lines.filter((line) => line.isToStrip && !kept.has(line.part.key));
        return (
          <div key={group}>
            <div className="border-line flex min-h-11 items-center justify-between border-b">
              <h3 className="text-mute text-base font-strong">{group}</h3>
              {mayRecord && open.length > 1 && (
                <Button look="quiet" onClick={() => void asUsual(open)}>
                  All {open.length} out, {usually(open)}
                </Button>
              )}
            </div>
            <ul>
              {lines.map((line) => (
                <Row
                  key={line.part.key}
                  line={line}
                  sign={view.signs.filter((sign) => sign.part === line.part.key).map((sign) => sign.finding)}
                  kept={pending.has(line.part.key)}
                  lit={lit === line.part.key}
                  open={mayRecord && (line === next || opened === line.part.key)}
                  mayRecord={mayRecord}
                  onOpen={() => setOpened(opened === line.part.key ? null : line.part.key)}
                  onUndo={() => void record({ kind: 'undo', part: line.part.key })}
                  form={
                    <FoundForm
                      tray={tray.number}
                      line={line}
                      most={view.mostEighths}
                      usual={line.found?.verdict ?? view.usual[line.part.key] ?? 'clean'}
                      eager={line === next}
                      errors={entries.problem?.errors ?? {}}
                      onRecord={async (note) => {
                        // Another line that is opened meanwhile stays open.
                        setOpened((now) => (now === line.part.key ? null : now));
                        const settled = await record(note);
                        if (!settled) setOpened(line.part.key);
                        return settled;
                      }}
                      onStays={() => record({ kind: 'stays', part: line.part.key })}
                      onNone={() => record({ kind: 'has', has: [], hasNot: [line.part.key] })}
                    />
                  }
                />
              ))}
            </ul>
          </div>
        );
      })}
      {rest > 0 && view.job.parts && <p className="text-mute pt-1">{rest} other parts stay as they are.</p>}
      {mayRecord && view.job.parts?.length !== 0 && <AddPart view={view} busy={busy} onRecord={record} />}
    </Card>
  );
}

interface RowProps {
  line: LedgerLine;
  sign: string[];
  kept: boolean;
  /** Somebody was sent to it. */
  lit: boolean;
  open: boolean;
  mayRecord: boolean;
  onOpen: () => void;
  onUndo: () => void;
  form: React.ReactNode;
}

const marks = {
  expected: <Circle aria-hidden size={20} className="text-mute" />,
  staysIn: <CircleDashed aria-hidden size={20} className="text-mute" />,
  out: <Check aria-hidden size={22} strokeWidth={3} />,
  missing: <CircleDashed aria-hidden size={20} className="text-bad" strokeWidth={3} />,
  back: <Check aria-hidden size={22} strokeWidth={3} className="text-ok" />,
} as const;

/** One part: what it is, how it was found, and the form while it is the next one or being looked at again. */
function Row({ line, sign, kept, lit, open, mayRecord, onOpen, onUndo, form }: RowProps) {
  const units = useUnits();
  const { part, state } = line;
  const row = useRef<HTMLLIElement>(null);
  useEffect(() => {
    if (lit) row.current?.scrollIntoView({ block: 'center' });
  }, [lit]);
  const words = state === 'staysIn' ? 'stays in' : foundWords(line, units);
  return (
    <li
      ref={row}
      aria-label={part.label}
      aria-current={lit || undefined}
      className={`border-line border-b ${lit ? 'outline-dawn outline-3' : ''} ${open ? 'bg-dawn-soft -mx-5 border-l-4 border-l-[var(--dawn)] px-5' : ''}`}
    >
      <div className="flex min-h-11 flex-wrap items-center gap-x-3">
        <span className="flex w-6 justify-center">{marks[state]}</span>
        <span className={`inline-block text-part first-letter:uppercase ${open ? 'font-heavy' : 'font-strong'}`}>
          {part.label}
        </span>
        {!part.sure && state === 'expected' && <span className="text-mute">if it has one</span>}
        <span className={`min-w-0 ${state === 'missing' ? 'text-bad font-strong' : 'text-mute'}`}>{words}</span>
        {kept && <span className="text-unsure">on its way</span>}
        {state === 'back' && <span className="text-ok font-strong">back in</span>}
        {mayRecord && state !== 'back' && (
          <span className="ml-auto flex">
            {state !== 'expected' && (
              <button
                type="button"
                aria-label={`Take back: ${part.label}`}
                className="inline-flex size-11 items-center justify-center"
                onClick={onUndo}
              >
                <Undo2 aria-hidden size={18} />
              </button>
            )}
            {(state === 'out' || state === 'missing') && (
              <button
                type="button"
                className="min-h-11 px-1 underline underline-offset-4"
                aria-label={`${open ? 'Close' : 'Change'}: ${part.label}`}
                onClick={onOpen}
              >
                {open ? 'Close' : 'Change'}
              </button>
            )}
            {state === 'expected' && !open && (
              <button
                type="button"
                className="min-h-11 px-1 underline underline-offset-4"
                aria-label={`Open: ${part.label}`}
                onClick={onOpen}
              >
                Open
              </button>
            )}
          </span>
        )}
      </div>
      {sign.map((finding) => (
        <p key={finding} className="text-unsure pb-1 pl-9 font-strong">
          Counts at Trace: {finding.toLowerCase()}
        </p>
      ))}
      {open && <div className="pl-9 max-sm:pl-0">{form}</div>}
    </li>
  );
}
