import { Card } from '../../ui/card';
import { ChevronDown } from 'lucide-react';
import { Collapsible } from 'radix-ui';
import { useState } from 'react';
import type { CauseStanding, TraceNote, TraceView } from '../../api/client';
import { useUnits } from '../../session/session';
import { PartPicture } from '../../parts/PartPicture';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { money, percent, say } from '../../units/format';
import { useHistoryUsed } from '../../tray/useHistoryUsed';
import { FixDone } from './FixDone';

const FEW = 6;

interface Props {
  tray: number;
  view: TraceView;
  mayRecord: boolean;
  record: (note: TraceNote) => Promise<boolean>;
}

/** Causes still standing, most likely first, with the reason in a sentence and the arithmetic a touch away. */
export function CauseList({ tray, view, mayRecord, record }: Props) {
  const { trace } = view;
  const units = useUnits();
  const [all, setAll] = useState(false);
  const [, keepHistory] = useHistoryUsed();
  const shown = all ? trace.causes : trace.causes.slice(0, FEW);
  const { alike, kin } = trace.history;
  const trays = alike + kin;
  return (
    <Card label="Causes still standing" pad="rows" className="block">
      <header className="flex flex-wrap items-center justify-between gap-x-4 gap-y-1">
        <h2 className="text-title">Causes still standing</h2>
        <div className="flex items-center gap-2">
          <span className="text-mute text-note">Our own history</span>
          <Choice
            label="Our own history"
            value={view.historyUsed ? 'on' : 'off'}
            options={[
              { value: 'on', label: 'On' },
              { value: 'off', label: 'Off' },
            ]}
            onChange={(next) => keepHistory(next === 'on')}
            slim
          />
        </div>
      </header>
      <p className="text-mute pb-1.5 leading-snug">
        More than one thing wrong: {percent(trace.severalProbability)}. Not in the carburetor:{' '}
        {percent(trace.elsewhereProbability)}. None of these: {percent(trace.noneProbability)}. Several can be true
        together: the shares need not add up to one.
        {view.historyUsed &&
          (trays === 0
            ? ' No closed trace of ours to learn from yet.'
            : ` ${alike} closed ${alike === 1 ? 'trace' : 'traces'} of this sheet and ${kin} of its kind weigh ` +
              `${percent(trace.history.weight)} against the table.`)}
      </p>
      {trace.elsewhereAdvice && (
        <p className="border-unsure bg-unsure-soft mb-1.5 rounded-lg border-l-4 px-3 py-2 font-medium">
          {say(trace.elsewhereAdvice, units)}
        </p>
      )}
      <ol>
        {shown.map((standing) => (
          <Cause
            key={standing.cause.id}
            standing={standing}
            part={view.parts[standing.cause.id] ?? null}
            currency={view.currency}
            historyUsed={view.historyUsed}
            tray={tray}
            mayRecord={mayRecord}
            record={record}
          />
        ))}
      </ol>
      {trace.causes.length > FEW && (
        <Button look="quiet" onClick={() => setAll(!all)}>
          {all ? 'Only the likeliest' : `${trace.causes.length - FEW} more`}
        </Button>
      )}
    </Card>
  );
}

function Cause({
  standing,
  part,
  currency,
  historyUsed,
  tray,
  mayRecord,
  record,
}: Omit<Props, 'view'> & {
  standing: CauseStanding;
  part: { key: string; label: string } | null;
  currency: string;
  historyUsed: boolean;
  tray: number;
}) {
  const units = useUnits();
  const [open, setOpen] = useState(false);
  const { cause, probability } = standing;
  const strongest = Math.max(1, ...standing.weighings.map((w) => Math.abs(w.logOdds)));
  return (
    <li className="border-line border-t">
      <Collapsible.Root open={open} onOpenChange={setOpen}>
        <Collapsible.Trigger
          className={`hover:bg-paper -mx-2 grid w-[calc(100%+1rem)] grid-cols-[1fr_3.25rem_1.25rem] items-center gap-x-3 gap-y-1
          rounded-lg px-2 py-1.5 text-left sm:grid-cols-[1fr_6.5rem_3.25rem_1.25rem]`}
        >
          <span className="min-w-0 leading-tight">
            <span className="block text-lead font-strong">{cause.label}</span>
            <span className="text-mute block text-note">{say(standing.reason, units)}</span>
          </span>
          <span
            aria-hidden
            className="bg-steel h-3 overflow-hidden rounded-full max-sm:order-last max-sm:col-span-3 max-sm:h-2"
          >
            <span
              className="bg-ink block h-full rounded-full"
              style={{ width: `${Math.max(2, 100 * probability)}%` }}
            />
          </span>
          <span className="num text-right text-part font-bold">{percent(probability)}</span>
          <ChevronDown aria-hidden size={18} className={open ? 'rotate-180' : ''} />
        </Collapsible.Trigger>
        <Collapsible.Content className="bg-paper mb-2 grid gap-3 rounded-lg p-3">
          <div className="flex flex-wrap items-center gap-x-5">
            {part && <PartPicture part={part.key} label={part.label} />}
            <p>
              <span className="font-strong">{cause.fix}</span>: {cause.fixMinutes} min
              {cause.partsMoney > 0 && `, parts about ${money(cause.partsMoney, currency)}`}.
            </p>
          </div>
          <ul aria-label="What each finding adds" className="grid gap-1">
            {standing.weighings.map((w) => (
              <li
                key={w.findingId + String(w.logOdds)}
                className="grid grid-cols-[1fr_4rem_3.5rem] items-center gap-3 sm:grid-cols-[1fr_7rem_3.5rem]"
              >
                <span className="leading-tight">
                  {w.present ? '' : 'Not: '}
                  {w.label}
                </span>
                <span aria-hidden className="relative h-2.5">
                  <span className="bg-line absolute inset-y-0 left-1/2 w-px" />
                  <span
                    className={`absolute inset-y-0 rounded-full ${w.logOdds > 0 ? 'bg-ok left-1/2' : 'bg-bad right-1/2'}`}
                    style={{ width: `${(50 * Math.abs(w.logOdds)) / strongest}%` }}
                  />
                </span>
                <span className="num text-right">
                  {w.logOdds > 0 ? '+' : '−'}
                  {Math.abs(w.logOdds).toFixed(1)}
                </span>
              </li>
            ))}
            {standing.weighings.length === 0 && <li className="text-mute">Nothing found so far moves it.</li>}
          </ul>
          <p className="text-mute text-note">
            Before anything was found: {percent(standing.expertPrior, 1)} by the table
            {historyUsed &&
              `, ${percent(standing.prior, 1)} with our own history (confirmed ${standing.confirmedBefore.toFixed(1)} times)`}
            . Numbers at the bars are changes of log-odds. Source: {cause.source}.
          </p>
          <FixDone
            tray={tray}
            causeId={cause.id}
            label={cause.label}
            refer={cause.refer}
            mayRecord={mayRecord}
            record={record}
          />
        </Collapsible.Content>
      </Collapsible.Root>
    </li>
  );
}
