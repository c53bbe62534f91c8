import { Card } from '../ui/card';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { CarburetorFamily, Line, QuickAnswer, Station, Tray } from '../api/client';
import { focusLine } from '../gauge/boxes';
import { useLine } from '../gauge/useLine';
import { useAllowed, useOff, useUnits } from '../session/session';
import { useTrace } from '../shell/queries';
import { stationWord, trayPath } from '../shell/stations';
import { Button, LinkButton } from '../ui/button';
import { focusNextThere } from '../ui/focus';
import { CautionNote } from '../ui/caution';
import { say } from '../units/format';
import { useHistoryUsed } from './useHistoryUsed';
import { Cutaway, type Suspect } from './Cutaway';
import { DiaphragmCutaway, TankCutaway } from './CutawayOther';
import { LeakMarks } from './LeakMarks';

/** A name longer than this does not fit on a button. */
const LONG = 22;

const unidentified: Record<CarburetorFamily, string> = {
  floatBowl: 'A float-bowl carburetor, not identified yet',
  diaphragm: 'A diaphragm carburetor, not identified yet',
  suctionTank: 'A carburetor on its tank, not identified yet',
};

/** This carburetor, the one thing to do next and why, and the caution that belongs to it. */
export function BenchCard({ tray, station, drawn }: { tray: Tray; station: Station; drawn: boolean }) {
  const tracing = station === 'faults';
  const units = useUnits();
  const navigate = useNavigate();
  const { next } = tray;
  const line = tray.lines.find((l) => l.key === next.lineKey);
  const goTo = (target: Line): void => {
    void navigate(trayPath(tray.number, target.station));
    focusLine(target.key);
  };
  // With the fuel on, the drawing takes where it leaks; its parts lead nowhere then.
  const mayRecord = useOff(tray) === undefined && tray.whyNotProven === null;
  const leak = station === 'proving' && mayRecord ? tray.lines.find((l) => l.key === 'proving/fuel-on') : undefined;
  const pick = leak ? undefined : goTo;
  const marks = leak && <LeakMarks tray={tray.number} family={tray.facts.family} line={leak} />;
  return (
    <Card
      label="Bench card"
      as="aside"
      pad="none"
      className="flex flex-col self-start md:max-lg:grid md:max-lg:grid-cols-[22rem_1fr] md:max-lg:items-center lg:sticky lg:top-3"
    >
      {drawn && (
        <div className="px-1 pt-2">
          <p className="text-mute px-3 text-note">
            {tray.spec ? `${tray.spec.maker} ${tray.spec.code}, cut open` : unidentified[tray.facts.family]}
            {leak && <span className="block">Fuel somewhere? Tap where.</span>}
          </p>
          {tray.facts.family === 'diaphragm' ? (
            <DiaphragmCutaway tray={tray} onPick={pick}>
              {marks}
            </DiaphragmCutaway>
          ) : tray.facts.family === 'suctionTank' ? (
            <TankCutaway tray={tray} onPick={pick}>
              {marks}
            </TankCutaway>
          ) : tracing ? (
            <SuspectCutaway tray={tray} onPick={goTo} />
          ) : (
            <Cutaway
              tray={tray}
              onPick={pick}
              suspects={noSuspects}
              plain={leak !== undefined}
              near={station === 'setting' && tray.float !== null}
            >
              {marks}
            </Cutaway>
          )}
        </div>
      )}
      {tracing && (
        <div className="px-4 pb-3">
          <p className="text-mute leading-snug">
            Where the likeliest causes sit, with how likely each is. Readings at Gauge, Set and Prove count as findings
            on their own.
          </p>
        </div>
      )}
      {/* Trace shows its own step; where the tray goes on elsewhere it says so as every station does. */}
      {(!tracing || next.station !== 'faults') && (
        <>
          <div data-next className="border-line border-t px-4 py-3 md:max-lg:border-t-0">
            <h2 className="text-mute text-note font-strong">
              Next: {stationWord(next.station)}
              {next.lineLabel && `, ${next.lineLabel.toLowerCase()}`}
            </h2>
            <p className="text-part leading-snug font-bold">{say(next.do, units)}</p>
            <p className="text-mute mt-1 leading-snug">{say(next.why, units)}</p>
            {line && next.answers.length > 0 ? (
              <Answers tray={tray} line={line} answers={next.answers} />
            ) : (
              <LinkButton
                look="hands"
                className="mt-2.5"
                to={trayPath(tray.number, next.station)}
                onClick={() => {
                  if (line) goTo(line);
                  else focusNextThere();
                }}
              >
                {line && line.label.length > LONG
                  ? 'Go there'
                  : `Go to ${(line?.label ?? stationWord(next.station)).toLowerCase()}`}
              </LinkButton>
            )}
          </div>
          {next.caution && (
            <div className="md:max-lg:col-span-2">
              <CautionNote caution={next.caution} />
            </div>
          )}
        </>
      )}
    </Card>
  );
}

const noSuspects: Suspect[] = [];
const SUSPECTS = 4;
const LEAST = 0.05;

/** The cutaway with the likeliest causes marked where they sit. */
function SuspectCutaway({ tray, onPick }: { tray: Tray; onPick: (line: Line) => void }) {
  const [history] = useHistoryUsed();
  const trace = useTrace(tray.number, history);
  const suspects = (trace.data?.trace.causes ?? [])
    .filter((standing) => standing.probability >= LEAST)
    .slice(0, SUSPECTS)
    .map(({ cause, probability }) => ({ id: cause.id, circuit: cause.circuit, label: cause.label, probability }));
  return <Cutaway tray={tray} onPick={onPick} suspects={suspects} />;
}

/** The answers that would settle it, one touch each. */
function Answers({ tray, line, answers }: { tray: Tray; line: Line; answers: QuickAnswer[] }) {
  const state = useLine(tray.number, line);
  const mayRecord = useAllowed('workAtTheBench');
  const [failed, setFailed] = useState(false);
  return (
    <div className="mt-2.5 flex flex-wrap gap-2">
      {answers.map((answer, i) => (
        <Button
          key={answer.label}
          look={i === 0 ? 'hands' : 'plain'}
          disabled={!mayRecord || state.busy}
          onClick={() => void state.answer(answer.values).then((ok) => setFailed(!ok))}
        >
          {answer.label}
          <span className="text-note font-normal">{answer.leads}</span>
        </Button>
      ))}
      {failed && <p role="alert">{state.refused?.title ?? 'That could not be recorded.'}</p>}
    </div>
  );
}
