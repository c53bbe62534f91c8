import { Card } from '../ui/card';
import { CloudOff } from 'lucide-react';
import { Collapsible } from 'radix-ui';
import { isFree } from '../ui/focus';
import { Fragment, useId, useRef, useState, type ReactNode } from 'react';
import type { Entry, Line } from '../api/client';
import { isKept, lineDraftKey, useKept } from '../outbox/drafts';
import { useAllowed, usePerson, useUnits } from '../session/session';
import { Button } from '../ui/button';
import { CautionNote } from '../ui/caution';
import { Choice } from '../ui/choice';
import { Notice } from '../ui/states';
import { SlipQuestion } from './SlipQuestion';
import { VerdictWord } from '../ui/verdict';
import { say } from '../units/format';
import { firstBox, nextBox, nextLine } from './boxes';
import { asFoundOrLeft, groupOf, standingTyped } from './entry';
import { HoldCurve } from './HoldCurve';
import { RowEntry } from './RowEntry';
import { Scale } from './Scale';
import { ChoiceEntry, SingleEntry } from './SingleEntry';
import { useLine } from './useLine';
import { Why } from './Why';

interface Props {
  tray: number;
  line: Line;
  history: Entry[];
  locked: boolean;
  way: string | undefined;
}

/** The one component for every measurement: what it is, its window, the entry, the verdict, and the why a touch away. */
export function GaugeLine({ tray, line, history, locked, way }: Props) {
  const units = useUnits();
  const mayRecord = useAllowed('workAtTheBench') && !locked;
  const state = useLine(tray, line);
  const [why, setWhy] = useState(false);
  const [moreOpen, setMore] = useState(false);
  const id = useId();
  const { judgement } = state;
  const open = line.required ? line.judgement.verdict !== 'good' : line.judgement.verdict === 'notGood';

  const article = useRef<HTMLElement>(null);
  // Typed over a reading that stands: it may be that reading put right, or another one.
  const both = state.dirty && line.standing !== null && state.draft.correcting === null;
  const goOn = (from: Element | null): void => {
    // The button goes away with what is recorded; its line stays. A hand that has gone elsewhere is not led away.
    if (article.current && isFree(from)) nextLine(article.current);
  };
  const record = async (from: HTMLElement, as?: 'correction'): Promise<void> => {
    if (!state.dirty || (await state.record(as))) goOn(from);
    // What it asks about stands on the line by the next frame.
    else requestAnimationFrame(() => article.current?.querySelector<HTMLElement>('[data-slips] button')?.focus());
  };
  const onEnter = (from: HTMLElement): void => {
    if (nextBox(from)) return;
    const ask = both && !state.doubted ? article.current?.querySelector<HTMLElement>('[data-ask]') : null;
    if (ask) ask.focus();
    else void record(from);
  };
  const correct = (): void => {
    if (!line.standing) return;
    state.change({ ...standingTyped(line, units), correcting: line.standing.entryId });
    setWhy(false);
    if (article.current) firstBox(article.current)?.focus();
  };
  const problems = Object.values(state.errors);
  const hasAdvice = judgement.verdict === 'notGood' || judgement.verdict === 'cannotTell';
  const group = groupOf(state, line, way);
  const more = moreOpen || (group?.fields.some((f) => state.draft.values[f.name] || state.errors[f.name]) ?? false);
  const area = ['areaLow', 'areaHigh']
    .map((key) => judgement.figures.find((f) => f.key === key)?.quantity.value)
    .filter((v) => v !== undefined);

  const seenField = line.form.groups[0]?.fields.find((field) => field.kind === 'choice');
  const seenChoice = seenField?.choices.find((choice) => choice.value === line.seenAtTrace?.answer);
  const choiceEntry = (
    <ChoiceEntry
      state={state}
      line={line}
      way={way}
      disabled={!mayRecord}
      onEnter={onEnter}
      onChosen={() => {
        if (document.activeElement?.matches(':focus-visible')) goOn(document.activeElement);
      }}
    />
  );
  return (
    <Collapsible.Root open={why} onOpenChange={setWhy} asChild>
      <article
        ref={article}
        data-line={line.key}
        data-open={open}
        data-typed={state.dirty}
        data-standing={line.standing !== null && !state.draft.alone}
        aria-label={line.label}
        className="border-line border-t pt-2 pb-1"
      >
        <div className="grid grid-cols-[7.2rem_8.75rem_minmax(0,1fr)_9.7rem] items-center gap-x-2.5 gap-y-2 max-md:grid-cols-2">
          <div className={line.form.oneTouch ? 'max-md:col-span-2 md:col-span-3' : ''}>
            <h3 className="text-lead leading-tight">{line.label}</h3>
            <p className="text-mute text-note leading-tight">
              {say(line.form.oneTouch && judgement.verdict === 'notRead' ? judgement.doNext : line.target, units)}
            </p>
            {line.seenAtTrace && !state.dirty && (
              <p className="text-unsure flex flex-wrap items-center gap-x-3 font-strong">
                Seen at Trace: {line.seenAtTrace.words}.
                {seenChoice && (
                  <Button
                    look="quiet"
                    disabled={!mayRecord}
                    aria-label={`Take that: ${seenChoice.label}, ${line.label}`}
                    onClick={() => void state.answer({ [seenField?.name ?? '']: seenChoice.value })}
                  >
                    Take that: {seenChoice.label}
                  </Button>
                )}
              </p>
            )}
            {line.advice && !state.dirty && <p className="leading-snug">{say(line.advice, units)}</p>}
            {line.form.oneTouch && choiceEntry}
          </div>
          {!line.form.oneTouch && (
            <>
              <div className={line.form.rows ? 'md:col-span-2' : ''}>
                {line.window &&
                  (line.form.rows && line.window.dimension === 'pressure' && line.window.high === null ? (
                    <HoldCurve reading={state.reading} window={line.window} judgement={judgement} />
                  ) : (
                    <Scale window={line.window} judgement={judgement} label={line.label} />
                  ))}
              </div>
              <div className={`grid gap-1.5 max-md:col-span-2 ${line.form.rows ? 'order-last md:col-span-4' : ''}`}>
                {line.form.rows && (
                  <RowEntry
                    state={state}
                    line={line}
                    way={way}
                    disabled={!mayRecord}
                    onEnter={onEnter}
                    more={more}
                    onMore={() => setMore(!more)}
                  />
                )}
                {(!line.form.rows || more) && (
                  <SingleEntry
                    state={state}
                    line={line}
                    way={way}
                    disabled={!mayRecord}
                    onEnter={onEnter}
                    describedBy={problems.length > 0 ? `${id}-wrong` : undefined}
                  />
                )}
              </div>
            </>
          )}
          <div className="max-md:col-span-2 md:col-start-4">
            <Collapsible.Trigger
              aria-label={`${line.label}: ${judgement.word}. Why and history`}
              // While a number is typed there is room for what its verdict will say: Record stays under the hand.
              className={`hover:bg-paper -mx-1.5 flex w-full items-center justify-between gap-1 rounded-lg px-1.5
                text-left ${state.dirty ? 'min-h-16' : 'min-h-11'}`}
            >
              <span>
                <VerdictWord judgement={judgement} />
                <span className="text-mute block text-small">
                  {area.length > 0 && (
                    <span className="block tabular-nums">{area.map((v) => Math.round(v)).join('–')} % area</span>
                  )}
                  {line.standing && !state.dirty && `${asFoundOrLeft(line, line.standing.entryId)}, `}
                  <span className="underline underline-offset-3">why</span>
                </span>
              </span>
            </Collapsible.Trigger>
            {line.standing && !state.dirty && mayRecord && (
              <button
                type="button"
                className="text-mute hover:text-ink relative min-h-8 text-small underline underline-offset-3 after:absolute after:inset-x-0 after:-inset-y-1.5"
                aria-label={`Correct ${line.label}`}
                onClick={correct}
              >
                Correct
              </button>
            )}
            {state.kept && (
              <p className="text-unsure flex items-center gap-1 text-note font-strong">
                <CloudOff aria-hidden size={16} /> kept on this device
              </p>
            )}
          </div>
        </div>

        {!line.form.oneTouch && choiceEntry}

        {problems.length > 0 && (
          <div id={`${id}-wrong`} role="alert" className="text-bad mt-1.5 font-medium">
            {problems.map((message) => (
              <p key={message}>{message}</p>
            ))}
          </div>
        )}
        {state.slips.length > 0 && mayRecord && <SlipQuestion state={state} onDone={() => goOn(null)} />}
        {state.refused && (
          <div className="mt-2">
            <Notice title={state.refused.title}>
              {state.refused.detail}
              {typeof state.refused.theirs === 'string' && (
                <p className="font-strong">
                  {state.refused.theirsBy}: {state.refused.theirs}
                </p>
              )}
            </Notice>
          </div>
        )}

        {(hasAdvice || state.dirty || (mayRecord && judgement.answers.length > 0)) && (
          <div className={`flex flex-wrap gap-x-3 gap-y-1 ${state.dirty ? 'items-start' : 'items-center'}`}>
            <p
              hidden={judgement.verdict === 'notRead' && !state.dirty}
              className={`min-w-0 flex-1 leading-snug ${both ? 'basis-full' : 'basis-32'}
                ${state.dirty ? 'max-md:order-last max-md:basis-full md:pt-2.5' : ''}
                ${judgement.verdict === 'notRead' ? 'text-mute' : 'font-medium'}`}
            >
              {state.draft.correcting && <span className="text-unsure">Correcting the reading that stands. </span>}
              {judgement.verdict !== 'good' && state.slips.length === 0 && say(judgement.doNext, units)}
            </p>
            {mayRecord &&
              !state.dirty &&
              judgement.answers.map((answer) => (
                <Button
                  key={answer.label}
                  // Beside the boxes of a line that nobody has read they stand back.
                  {...(judgement.verdict === 'notRead' ? { look: 'quiet', className: 'px-0!' } : {})}
                  disabled={state.busy}
                  onClick={({ currentTarget }) => {
                    // The button goes away with the answer: a hand on the keys is led on, a finger is not.
                    const byKeys = currentTarget.matches(':focus-visible');
                    void state.answer(answer.values).then((taken) => {
                      if (taken && byKeys) goOn(currentTarget);
                    });
                  }}
                  aria-label={`${line.label}: ${answer.label}, ${answer.leads}`}
                >
                  {answer.label}
                  {judgement.verdict !== 'notRead' && <span className="text-mute font-normal">{answer.leads}</span>}
                </Button>
              ))}
            {state.dirty && mayRecord && (
              <>
                <span className="text-mute self-center text-note">
                  {both && state.slips.length === 0 ? 'A new reading, or the last one put right?' : 'not recorded yet'}
                </span>
                <Button look="quiet" onClick={state.drop} aria-label={`Drop what was typed for ${line.label}`}>
                  Drop
                </Button>
                {state.slips.length === 0 && (
                  <Button
                    look="hands"
                    data-ask={both || undefined}
                    onClick={(event) => void record(event.currentTarget)}
                    aria-label={both ? `New reading, record ${line.label}` : `Record ${line.label}`}
                  >
                    {both ? 'New reading' : 'Record'}
                  </Button>
                )}
                {both && state.slips.length === 0 && (
                  <Button
                    onClick={(event) => void record(event.currentTarget, 'correction')}
                    aria-label={`Correct the last, ${line.label}`}
                  >
                    Correct the last
                  </Button>
                )}
              </>
            )}
          </div>
        )}
        <Collapsible.Content>
          <Why line={line} state={state} history={history} tray={tray} mayRecord={mayRecord} onCorrect={correct} />
        </Collapsible.Content>
      </article>
    </Collapsible.Root>
  );
}

const noWays: Record<string, string> = {};

/** The heading of a section and, where its lines can be measured in more than one way, the choice between them. */
function SectionHead({
  section,
  lines,
  way,
  onWay,
}: {
  section: string;
  lines: Line[];
  way: string | undefined;
  onWay: (way: string) => void;
}) {
  const groups = lines[0]?.form.groups ?? [];
  const shared = groups.filter((g) => lines.every((line) => line.form.groups.some((other) => other.name === g.name)));
  return (
    <div className="flex min-h-9 flex-wrap items-center justify-between gap-x-4 pt-1.5 pb-1">
      <h3 className="text-mute text-note font-strong">{section}</h3>
      {shared.length > 1 && (
        <Choice
          label={`How to measure: ${section}`}
          value={shared.find((g) => g.name === way)?.name ?? shared[0]?.name ?? ''}
          options={shared.map((g) => ({ value: g.name, label: g.label }))}
          onChange={onWay}
          slim
        />
      )}
    </div>
  );
}

/** Gauge lines under their headings, as a station's sheet shows them. */
export function GaugeSheet({
  tray,
  lines,
  logbook,
  locked,
  title,
  note,
  cautionOnCard,
  usual = false,
  notOpened = [],
}: {
  tray: number;
  lines: Line[];
  logbook: Entry[];
  locked: boolean;
  title: string;
  note: ReactNode;
  /** The caution the bench card shows already. */
  cautionOnCard: string | undefined;
  /** Whether the note says only what is usual. */
  usual?: boolean;
  /** What would have to be read, and was left shut on this job. */
  notOpened?: string[];
}) {
  const person = usePerson();
  // What was typed on one of them before a reload stays in sight.
  const [extraKeys] = useState(
    () =>
      new Set(
        lines.filter((line) => line.standsAside && !isKept(lineDraftKey(person.id, tray, line.key))).map((l) => l.key),
      ),
  );
  // What was touched stays where it was touched.
  // What has to be read since, because it was opened on another page, is asked for.
  const isExtra = (line: Line): boolean => extraKeys.has(line.key) && !(line.required && line.standing === null);
  const extras = lines.filter(isExtra);
  const asked = lines.filter((line) => !isExtra(line));
  const sections = [...new Set(asked.map((line) => line.section))];
  // Each caution once, at the first section it belongs to.
  const [ways, keepWays] = useKept<Record<string, string>>(`${person.id}:ways`, noWays);
  const firstWith = new Map<string, Line>();
  for (const line of [...asked, ...extras])
    if (line.caution && !firstWith.has(line.caution.key)) firstWith.set(line.caution.key, line);
  const cautionOf = (line: Line): ReactNode =>
    line.caution &&
    line.caution.key !== cautionOnCard &&
    firstWith.get(line.caution.key) === line && (
      <div key={line.key} className="mb-2 overflow-hidden rounded-lg">
        <CautionNote caution={line.caution} />
      </div>
    );
  const gaugeLine = (line: Line, section: string): ReactNode => (
    <GaugeLine
      key={line.key}
      tray={tray}
      line={line}
      locked={locked}
      way={ways[section]}
      history={logbook.filter((entry) => entry.lineKey === line.key)}
    />
  );
  return (
    <Card label={title} pad="rows" className="block">
      <header className="flex flex-wrap items-baseline justify-between gap-x-4">
        {/* On a phone the strip says the station, and the first box comes first. */}
        <h2 className="text-title max-sm:sr-only">{title}</h2>
        <p className={`text-mute ${usual ? 'max-sm:sr-only' : ''}`}>{note}</p>
      </header>
      {sections.map((section) => (
        <div key={section}>
          <SectionHead
            section={section}
            lines={lines.filter((line) => line.section === section)}
            way={ways[section]}
            onWay={(way) => keepWays({ ...ways, [section]: way })}
          />
          {asked.filter((line) => line.section === section).map(cautionOf)}
          {asked.filter((line) => line.section === section).map((line) => gaugeLine(line, section))}
        </div>
      ))}
      {notOpened.length > 0 && (
        <p className="text-mute py-2 leading-snug">Not asked, nothing of it was touched: {notOpened.join(', ')}.</p>
      )}
      {extras.length > 0 && (
        <details className="border-line border-t">
          <summary className="text-mute min-h-11 cursor-pointer py-2.5 font-medium">
            {extras.length === 1 ? '1 more thing' : `${extras.length} more things`} to look at or measure, not asked for
          </summary>
          {extras.map((line) => (
            <Fragment key={line.key}>
              {cautionOf(line)}
              {gaugeLine(line, line.section)}
            </Fragment>
          ))}
        </details>
      )}
    </Card>
  );
}
