import { LinkButton } from '../ui/button';
import { Card } from '../ui/card';
import { Link } from 'react-router';
import type { Bench, BenchTray, WaitsFor } from '../api/client';
import { CheckedInHere } from '../shell/CheckedInHere';
import { useAllowed, useUnits } from '../session/session';
import { DeskPage } from './DeskPage';
import { useBench } from '../shell/queries';
import { waits, waitWord } from '../shell/words';
import { stationWord, trayPath } from '../shell/stations';
import { RuleTicks } from '../ui/rule';
import { Loading, Trouble } from '../ui/states';
import { Tag } from '../ui/tag';
import { day, daysBetween, say } from '../units/format';

const DAYS = 7;

/** Every tray by what it waits for, and what is next for the hands. */
export function BenchPage() {
  const query = useBench();
  const mayWork = useAllowed('workAtTheBench');
  if (query.isPending) return <Loading what="the bench" />;
  if (!query.data) return <Trouble error={query.error} retry={() => void query.refetch()} />;
  if (!mayWork) return <DeskPage bench={query.data} />;
  const { trays, today } = query.data;
  const onBench = trays.filter((t) => t.waitsFor !== 'handedBack');
  const hands = onBench.filter((t) => t.needsHands);
  const late = onBench.filter((t) => daysBetween(today, t.promisedDay) < 0).length;
  const dueToday = onBench.filter((t) => t.promisedDay === today).length;
  const weekday = new Intl.DateTimeFormat('en-GB', { weekday: 'long' }).format(new Date(`${today}T12:00`));
  return (
    <div className="grid gap-4 p-3 lg:px-5 lg:pb-5">
      <header>
        <h1 className="text-heading leading-tight">{weekday} at the bench</h1>
        <p className="text-mute">
          {onBench.length} {onBench.length === 1 ? 'tray' : 'trays'}, {hands.length}{' '}
          {hands.length === 1 ? 'needs' : 'need'} hands now.
          {dueToday > 0 && ` ${dueToday} due today.`}
          {late > 0 && ` ${late} late.`}
        </p>
      </header>
      <CheckedInHere />
      {onBench.length === 0 ? (
        <Card label="The bench is clear" title="The bench is clear" className="grid justify-items-start gap-3">
          <p>When a carburetor comes in, give it a tray: everything measured hangs on that number.</p>
          <LinkButton look="hands" to="/check-in">
            Check in the first
          </LinkButton>
        </Card>
      ) : (
        <>
          <PromiseRule bench={query.data} trays={onBench} />
          <div className="grid items-start gap-4 lg:grid-cols-[1.3fr_1fr]">
            <NextForHands trays={hands} today={today} />
            <Waiting trays={trays} today={today} />
          </div>
        </>
      )}
    </div>
  );
}

/** The coming days on a steel rule, each tray hanging at the day it is promised for. */
function PromiseRule({ bench, trays }: { bench: Bench; trays: BenchTray[] }) {
  const columns = Array.from({ length: DAYS }, (_, i) => i);
  const at = (t: BenchTray): number => Math.min(Math.max(daysBetween(bench.today, t.promisedDay), 0), DAYS - 1);
  const dateOf = (offset: number): string =>
    new Date(Date.parse(`${bench.today}T12:00Z`) + offset * 86_400_000).toISOString().slice(0, 10);
  return (
    <section
      aria-label="Promised days"
      className="border-line-strong/60 relative grid grid-cols-7 rounded-md border bg-[linear-gradient(var(--steel),var(--steel-2))] max-sm:hidden"
    >
      <RuleTicks every={24} of={24 * DAYS} height={13} />
      {columns.map((offset) => {
        const here = trays.filter((t) => at(t) === offset);
        return (
          <div
            key={offset}
            className={`relative min-h-24 px-2 pt-4 pb-2 ${offset === 0 ? 'shadow-[inset_4px_0_0_var(--dawn)]' : ''}`}
          >
            <h2 className="text-note font-strong first-letter:uppercase">
              {offset === DAYS - 1 ? 'Later' : day(dateOf(offset), bench.today)}
            </h2>
            <div className="mt-1 flex flex-wrap gap-1">
              {here.map((t) => {
                const late = daysBetween(bench.today, t.promisedDay) < 0;
                return (
                  <Link
                    key={t.number}
                    to={trayPath(t.number)}
                    title={`${t.machineName}: ${waitWord[t.waitsFor].toLowerCase()}${late ? ', late' : ''}`}
                    className={`num inline-flex min-h-10 min-w-11 items-center justify-center rounded-lg border-[1.5px] px-2 text-lead font-bold ${
                      t.needsHands ? 'bg-sheet border-ink' : 'text-ink border-line-strong border-dashed'
                    }`}
                  >
                    {late && '! '}
                    {t.number}
                  </Link>
                );
              })}
            </div>
          </div>
        );
      })}
    </section>
  );
}

function NextForHands({ trays, today }: { trays: BenchTray[]; today: string }) {
  const units = useUnits();
  return (
    <Card label="Next for your hands" title="Next for your hands" pad="rows" className="block">
      {trays.length === 0 && (
        <p className="text-mute py-3">Nothing needs hands. Look at what else is waiting, or check in the next one.</p>
      )}
      <ul>
        {trays.map((t, i) => (
          <li key={t.number}>
            <Link
              to={trayPath(t.number, t.station)}
              className={`grid grid-cols-[4rem_1fr] items-center gap-x-3.5 gap-y-1 py-2.5 sm:grid-cols-[4rem_1fr_auto]
                ${i === 0 ? 'border-dawn bg-dawn-soft -mx-2 my-2 rounded-lg border-2 px-2' : 'border-line hover:bg-paper border-t'}`}
            >
              <Tag number={t.number} />
              <span className="min-w-0 leading-snug">
                <span className="block text-part font-bold">{say(t.do, units)}</span>
                <span className="text-mute block">
                  {t.machineName}, {t.ownerName} · {stationWord(t.station).toLowerCase()}
                  {t.lineLabel && `, ${t.lineLabel.toLowerCase()}`}
                </span>
                {t.unsafe && <span className="text-bad block font-strong">Must not run: {t.unsafe.toLowerCase()}</span>}
              </span>
              <span className="leading-tight max-sm:col-start-2 max-sm:flex max-sm:items-baseline max-sm:gap-3 sm:text-right">
                <span className="block font-bold">{day(t.promisedDay, today)}</span>
                <span className="text-mute block text-note">
                  {t.openLines > 0 ? `${t.openLines} of ${t.lines} open` : t.lines > 0 ? 'all good' : 'nothing asked'}
                </span>
              </span>
            </Link>
          </li>
        ))}
      </ul>
    </Card>
  );
}

function Waiting({ trays, today }: { trays: BenchTray[]; today: string }) {
  const waiting = trays.filter((t) => !t.needsHands);
  const groups = waits.filter((w) => w !== 'hands' && waiting.some((t) => t.waitsFor === w));
  return (
    <Card label="Waiting on something else" title="Waiting on something else" pad="rows" className="block">
      {groups.length === 0 && <p className="text-mute py-3">Nothing is waiting.</p>}
      {groups.map((wait: WaitsFor) => (
        <div key={wait}>
          <h3 className="text-mute pt-2 text-note font-strong">{waitWord[wait]}</h3>
          <ul>
            {waiting
              .filter((t) => t.waitsFor === wait)
              .map((t) => (
                <li key={t.number}>
                  <Link
                    to={trayPath(t.number)}
                    className="border-line hover:bg-paper grid min-h-12 grid-cols-[2.75rem_1fr_auto] items-center gap-2.5 border-t py-1.5"
                  >
                    <span className="num text-part font-bold">{t.number}</span>
                    <span className="min-w-0 leading-tight">
                      {t.machineName}
                      <span className="text-mute block text-note">{t.waitNote || t.ownerName}</span>
                      {t.unsafe && (
                        <span className="text-bad block text-note font-strong">
                          Must not run: {t.unsafe.toLowerCase()}
                        </span>
                      )}
                    </span>
                    <span className="font-strong">{wait === 'handedBack' ? '' : day(t.promisedDay, today)}</span>
                  </Link>
                </li>
              ))}
          </ul>
        </div>
      ))}
    </Card>
  );
}
