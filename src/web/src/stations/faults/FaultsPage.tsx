import { Card } from '../../ui/card';
import { CloudOff } from 'lucide-react';
import { useRef, useState } from 'react';
import type { CheckValue, FaultWords, TraceNote, TraceView, Tray } from '../../api/client';
import { useOff } from '../../session/session';
import { useRecord } from '../../shell/useRecord';
import { useFaultWords, useTrace } from '../../shell/queries';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { GaugeSheet } from '../../gauge/GaugeLine';
import { Loading, Notice, Trouble } from '../../ui/states';
import { CauseList } from './CauseList';
import { CheckList } from './CheckList';
import { EvidenceList } from './EvidenceList';
import { FoundList } from './FoundList';
import { NextPanel } from './NextPanel';
import { ToldCard } from './ToldCard';
import { useHistoryUsed } from '../../tray/useHistoryUsed';
import type { StationProps } from '../../tray/stationPage';

/** Evidence in, ranked causes and the next best step out. */
export default function FaultsPage({ tray }: StationProps) {
  const [history] = useHistoryUsed();
  const trace = useTrace(tray.number, history);
  const { family, engine, choke } = tray.facts;
  const words = useFaultWords(family, engine, choke);
  if (trace.isPending || words.isPending) return <Loading what="the trace" />;
  if (!trace.data) return <Trouble error={trace.error} retry={() => void trace.refetch()} />;
  if (!words.data) return <Trouble error={words.error} retry={() => void words.refetch()} />;
  return <OpenTrace tray={tray} view={trace.data} words={words.data} />;
}

function OpenTrace({ tray, view, words }: { tray: Tray; view: TraceView; words: FaultWords }) {
  const { trace } = view;
  const work = useRecord<TraceNote>(tray.number);
  const mayRecord = useOff(tray) === undefined;
  const [chosenId, setChosen] = useState<string | null>(null);
  const chosen = trace.checks.find((value) => value.check.id === chosenId) ?? null;
  const top = useRef<HTMLDivElement>(null);
  const stepCheck = chosen ? chosen.check.id : trace.next.checkId;
  // What the step reads as a number stands with the step; the rest below.
  const stepLines = (words.checks.find((check) => check.id === stepCheck)?.lines ?? trace.next.lines).flatMap(
    (key) => tray.lines.find((line) => line.key === key) ?? [],
  );
  const otherLines = tray.lines.filter((line) => line.station === 'faults' && !stepLines.includes(line));
  const choose = (check: CheckValue): void => {
    setChosen(check.check.id);
    top.current?.scrollIntoView({ block: 'nearest' });
    top.current?.querySelector<HTMLElement>('h2')?.focus();
  };
  return (
    <div ref={top} className="grid content-start gap-3">
      {work.problem && <Notice title={work.problem.title}>{work.problem.detail}</Notice>}
      {work.kept && (
        <p className="text-unsure flex items-center gap-2 font-strong">
          <CloudOff aria-hidden size={18} /> Kept on this device; the ranking follows when the server is back.
        </p>
      )}
      <NextPanel
        key={`${trace.next.kind}${trace.next.checkId ?? ''}${chosen?.check.id ?? ''}${trace.evidence.items.length}`}
        tray={tray}
        trace={trace}
        parts={view.parts}
        words={words}
        lines={stepLines}
        chosen={chosen}
        mayRecord={mayRecord && !work.busy}
        record={async (note) => {
          const done = await work.record(note);
          // What was asked before a chosen check leads on to it.
          if (done && note.kind !== 'safety' && !chosen?.before) setChosen(null);
          return done;
        }}
        onLeave={() => setChosen(null)}
      />
      {trace.doubts.length > 0 && (
        <Notice tone="unsure" title="The story and what was seen do not quite go together.">
          {trace.doubts.map((doubt) => (
            <p key={doubt}>{doubt}</p>
          ))}
          <p className="text-mute">For the bench alone: it stands on no report.</p>
        </Notice>
      )}
      <FoundList
        tray={tray.number}
        trace={trace}
        open={view.open}
        people={view.people}
        words={words}
        mayRecord={mayRecord && !work.busy}
        record={work.record}
      />
      <CauseList tray={tray.number} view={view} mayRecord={mayRecord && !work.busy} record={work.record} />
      <EvidenceList
        tray={tray.number}
        view={view}
        words={words}
        mayRecord={mayRecord && !work.busy}
        record={work.record}
      />
      <ToldCard
        tray={tray.number}
        trace={trace}
        words={words}
        mayRecord={mayRecord && !work.busy}
        record={work.record}
        onCheck={(id) => {
          const value = trace.checks.find(({ check }) => check.id === id);
          if (value) choose(value);
        }}
      />
      {otherLines.length > 0 && (
        <GaugeSheet
          tray={tray.number}
          lines={otherLines}
          logbook={tray.logbook}
          locked={!mayRecord}
          title="Quick tests"
          note="What is read here is found here"
          cautionOnCard={tray.next.caution?.key}
        />
      )}
      <Card label="How far apart it is" pad="rows" className="block">
        <h3 className="text-mute pb-1 text-note font-strong">How far apart it is; what is apart costs nothing more</h3>
        <Choice
          label="How far apart it is"
          value={trace.evidence.apart}
          options={words.levels.map((level) => ({ value: level.level, label: level.label }))}
          disabled={!mayRecord}
          onChange={(level) => void work.record({ kind: 'apart', level })}
        />
      </Card>
      {!trace.evidence.nothingFound && trace.evidence.found.length === 0 && (
        <p>
          <Button
            look="quiet"
            disabled={!mayRecord}
            onClick={() =>
              void work.record({
                kind: 'fault',
                causeId: null,
                outcome: 'nothingFound',
                reason: null,
                ownerSaid: null,
                done: null,
              })
            }
          >
            Close without a cause: clean and renew as usual
          </Button>
        </p>
      )}
      <CheckList checks={trace.checks} mayRecord={mayRecord} onChoose={choose} />
    </div>
  );
}
