import { Card } from '../../ui/card';
import { Undo2 } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import type { LedgerLine, LedgerNote, LedgerView, StackPlan, Tray } from '../../api/client';
import { useRecord } from '../../shell/useRecord';
import { useKeptParts } from '../../outbox/useKeptParts';
import { useOff, usePerson, useUnits } from '../../session/session';
import { useLedger } from '../../shell/queries';
import { fateWord, originWord } from '../../shell/words';
import { trayPath } from '../../shell/stations';
import type { StationProps } from '../../tray/stationPage';
import { Button } from '../../ui/button';
import { Loading, Notice, Trouble } from '../../ui/states';
import { foundWords } from '../../parts/found';
import { ScrewCard } from '../../parts/ScrewCard';
import { CameBad } from './CameBad';
import { ExplodedStack } from './ExplodedStack';
import { FitForm } from './FitForm';
import { SoHere } from './SoHere';
import { LeftOver } from './LeftOver';

/** The ledger walked backwards: what goes in next, the right way round, until every line has ended. */
export default function BuildPage({ tray }: StationProps) {
  const ledger = useLedger(tray.number);
  if (ledger.isPending) return <Loading what="the ledger" />;
  if (!ledger.data) return <Trouble error={ledger.error} retry={() => void ledger.refetch()} />;
  if (!ledger.data.lines.some((line) => line.isTaken)) {
    return (
      <Card label="Build" pad="form" className="block">
        <h2 className="text-title">Nothing has come out</h2>
        <p className="mt-1">
          What is written at{' '}
          <Link className="underline underline-offset-4" to={trayPath(tray.number, 'strip')}>
            Strip
          </Link>{' '}
          goes back in here, line by line, in the order and the way round it has to.
        </p>
      </Card>
    );
  }
  return <Build tray={tray} view={ledger.data} />;
}

function Build({ tray, view }: { tray: Tray; view: LedgerView }) {
  const mayRecord = useOff(tray) === undefined;
  const entries = useRecord<LedgerNote>(tray.number);
  const [picked, setPicked] = useState<string | null>(null);
  const record = async (note: LedgerNote): Promise<boolean> => {
    const part = 'part' in note ? note.part : null;
    // The page goes on to the next at once; whatever is picked meanwhile stays picked.
    setPicked((now) => (now === part ? null : now));
    const settled = await entries.record(note);
    if (!settled) setPicked(part);
    return settled;
  };
  const person = usePerson();
  const kept = useKeptParts(tray.number, 'build');
  const first = view.problems[0]?.part ?? view.advice.find((advice) => !kept.has(advice.part))?.part ?? null;
  const current = picked ?? first;
  const line = view.lines.find((one) => one.part.key === current) ?? null;
  const stack = line ? (stackOf(view, line.part.key) ?? alone(line)) : view.stacks[0];
  const taken = view.lines.filter((one) => one.isTaken);
  const { open } = view;
  const nextInStack = view.advice.find((one) => stack?.layers.some((layer) => layer.part === one.part))?.part ?? null;
  const problem = view.problems.find((one) => one.part === current);
  return (
    <div className="grid content-start gap-3">
      <Card label="Build">
        <div className="flex flex-wrap items-center justify-between gap-x-4">
          <h2 className="text-title">{stack?.label ?? 'Build'}</h2>
          <nav aria-label="Stacks" className="flex flex-wrap gap-1.5">
            {view.stacks.map((one) => {
              const parts = one.layers.map((layer) => layer.part);
              const left = view.advice.filter((advice) => parts.includes(advice.part)).length;
              const wrong = view.problems.some((found) => parts.includes(found.part));
              return (
                <button
                  key={one.key}
                  type="button"
                  aria-pressed={one.key === stack?.key}
                  onClick={() =>
                    setPicked(view.advice.find((a) => parts.includes(a.part))?.part ?? parts.at(-1) ?? null)
                  }
                  className={`border-line-strong aria-pressed:bg-ink aria-pressed:text-sheet inline-flex min-h-11 items-center
                    gap-1.5 rounded-lg border-[1.5px] px-3 font-medium`}
                >
                  {one.label}
                  <span className={wrong ? 'text-bad font-heavy' : ''}>{wrong ? '!' : left > 0 ? left : '✓'}</span>
                </button>
              );
            })}
          </nav>
        </div>
        {entries.problem && !atItsBox.some((field) => field in (entries.problem?.errors ?? {})) && (
          <Notice title={Object.values(entries.problem.errors)[0]?.[0] ?? entries.problem.title}>
            {entries.problem.detail}
          </Notice>
        )}
        {view.problems.map((found) => (
          <Notice key={`${found.part}/${found.other ?? ''}/${found.fault}`} title={found.what}>
            <p>{found.why}</p>
            <p className="font-strong">{found.mend}</p>
            {mayRecord && (
              <div className="mt-1.5 flex flex-wrap items-end gap-2">
                <Button
                  disabled={entries.busy}
                  aria-label={`Take out: ${labelOf(view, found.part)}`}
                  onClick={() => void record({ kind: 'undo', part: found.part })}
                >
                  <Undo2 aria-hidden size={18} /> Take out {labelOf(view, found.part)}
                </Button>
                <SoHere
                  draft={`${person.id}:so:${tray.number}:${found.part}`}
                  label={labelOf(view, found.part)}
                  shortest={view.shortestReason}
                  busy={entries.busy}
                  problem={entries.problem?.errors['note.soBecause']?.[0]}
                  onSay={(soBecause) => soOnThisMachine(view, found.part, soBecause, entries.record)}
                />
              </div>
            )}
          </Notice>
        ))}
        <div className="grid gap-x-5 gap-y-3 md:grid-cols-[minmax(0,8fr)_minmax(0,5fr)]">
          {stack && <ExplodedStack stack={stack} view={view} next={nextInStack} onPick={setPicked} />}
          <div className="grid content-start gap-3">
            {line && !problem && line.isOpen && (
              <FitForm
                key={line.part.key}
                tray={tray}
                view={view}
                line={line}
                advice={view.advice.find((one) => one.part === line.part.key)}
                mayRecord={mayRecord}
                errors={entries.problem?.errors ?? {}}
                onRecord={record}
              />
            )}
            {line && line.state === 'back' && (
              <Ended
                line={line}
                mayRecord={mayRecord && !problem}
                busy={entries.busy}
                onUndo={() => void record({ kind: 'undo', part: line.part.key })}
              >
                {line.fitted?.fate === 'renewed' && (
                  <CameBad
                    key={line.part.key}
                    draft={`${person.id}:bad:${tray.number}:${line.part.key}`}
                    line={line}
                    busy={entries.busy}
                    errors={entries.problem?.errors ?? {}}
                    onRecord={record}
                  />
                )}
              </Ended>
            )}
            {open === 0 && view.problems.length === 0 && (
              <Notice tone="ok" title="All parts are in.">
                Go to Prove.
              </Notice>
            )}
          </div>
        </div>
      </Card>
      <Lines lines={taken} current={current} open={open} onPick={setPicked} />
      <ScrewCard tray={tray} screws={view.screws} most={view.mostEighths} />
      <LeftOver view={view} />
    </div>
  );
}

/** What is wrong and said at its own place in the form. */
const atItsBox = [
  'note.way',
  'note.reason',
  'note.hole',
  'note.nearMatch',
  'note.elsewhere.what',
  'note.elsewhere.fromWhom',
  'note.elsewhere.price',
  'note.soBecause',
  'note.what',
  'note.supplier',
];

/** A part that stands as it went in is said once more, with why it is so: out and in again, in one go. */
const soOnThisMachine = async (
  view: LedgerView,
  part: string,
  soBecause: string,
  record: (...notes: LedgerNote[]) => Promise<boolean>,
): Promise<boolean> => {
  const fitted = view.lines.find((line) => line.part.key === part)?.fitted;
  return fitted ? record({ kind: 'undo', part }, { ...fitted, kind: 'back', soBecause }) : false;
};

const stackOf = (view: LedgerView, part: string): StackPlan | undefined =>
  view.stacks.find((one) => one.layers.some((layer) => layer.part === part));

/** A part that lies in no stack is drawn by itself. */
const alone = ({ part }: LedgerLine): StackPlan => ({
  key: part.key,
  label: part.group,
  base: 'body',
  layers: [
    { place: 1, part: part.key, way: null, loose: false, covers: [], trap: null, reason: '', source: part.source },
  ],
});

const labelOf = (view: LedgerView, part: string): string =>
  view.lines.find((line) => line.part.key === part)?.part.label ?? part;

/** A line that has ended, and the way back. */
function Ended({
  line,
  mayRecord,
  busy,
  onUndo,
  children,
}: {
  line: LedgerLine;
  mayRecord: boolean;
  busy: boolean;
  onUndo: () => void;
  children: ReactNode;
}) {
  const back = line.fitted?.fate === 'leftOff' ? 'Take that back' : 'Take it out again';
  return (
    <div className="grid justify-items-start gap-2">
      <h3 className="text-figure font-heavy first-letter:uppercase">{line.part.label}</h3>
      <p>{line.fitted && endWords(line)}</p>
      {mayRecord && (
        <Button disabled={busy} aria-label={`${back}: ${line.part.label}`} onClick={onUndo}>
          <Undo2 aria-hidden size={18} /> {back}
        </Button>
      )}
      {mayRecord && children}
    </div>
  );
}

const endWords = (line: LedgerLine): string =>
  [
    line.fitted ? fateWord[line.fitted.fate] : '',
    line.fitted?.item ? `from ${line.fitted.item}` : '',
    line.fitted?.elsewhere
      ? `${originWord[line.fitted.elsewhere.origin].toLowerCase()}, ${line.fitted.elsewhere.what}`
      : '',
    line.part.ways.find((way) => way.key === line.fitted?.way)?.label.toLowerCase(),
    line.fitted?.hole ? `hole ${line.fitted.hole}` : '',
    line.fitted?.nearMatch === true
      ? 'a near match'
      : line.fitted?.nearMatch === false
        ? 'the same as the old one'
        : '',
    line.fitted?.reason,
    line.fitted?.soBecause ? `so on this machine, because: ${line.fitted.soBecause}` : '',
    line.by,
  ]
    .filter(Boolean)
    .join(' · ');

/** Every line that was out, in the order it goes back. */
function Lines({
  lines,
  current,
  open,
  onPick,
}: {
  lines: LedgerLine[];
  current: string | null;
  open: number;
  onPick: (part: string) => void;
}) {
  const units = useUnits();
  return (
    <Card label="Lines" className="block">
      <h2 className="pb-1 text-part">
        {open === 0
          ? lines.length === 1
            ? 'It is back in'
            : `All ${lines.length} parts are back in`
          : `${open} of ${lines.length} parts to go`}
      </h2>
      <ul>
        {lines.toReversed().map((line) => (
          <li key={line.part.key} className="border-line border-t">
            <button
              type="button"
              onClick={() => onPick(line.part.key)}
              className={`flex min-h-11 w-full items-center gap-x-3 py-1 text-left leading-tight max-sm:flex-col
                max-sm:items-start ${line.part.key === current ? 'font-heavy' : ''}`}
            >
              <span className="inline-block min-w-48 font-strong first-letter:uppercase">{line.part.label}</span>
              <span className="text-mute min-w-0 flex-1">{foundWords(line, units)}</span>
              <span
                className={`font-bold sm:max-w-3/5 sm:text-right ${
                  line.state === 'back' ? 'text-ok' : line.state === 'missing' ? 'text-bad' : 'text-dawn'
                }`}
              >
                {line.state === 'back' ? endWords(line) : line.state === 'missing' ? 'missing' : 'on the bench'}
              </span>
            </button>
          </li>
        ))}
      </ul>
    </Card>
  );
}
