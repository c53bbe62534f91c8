import { Flame, Thermometer } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import type { Basket, BathView } from '../../api/client';
import { useKept } from '../../outbox/drafts';
import { usePerson, useUnits } from '../../session/session';
import { trayPath } from '../../shell/stations';
import { Button } from '../../ui/button';
import { CautionNote } from '../../ui/caution';
import { TextField } from '../../ui/field';
import { Notice } from '../../ui/states';
import { temperature } from '../../units/format';
import { BathCurve } from './BathCurve';
import { useBathWork } from './useBathWork';
import { countdown } from './useNow';

interface Props {
  view: BathView;
  now: number;
  mayRecord: boolean;
  /** The tray that can be put in from here. */
  tray?: number;
  /** Its parts that must not go in with it. */
  staysOut?: readonly string[];
}

/** A bath: how warm it is, who is in it, how long still. */
export function BathPanel({ view, now, mayRecord, tray, staysOut = [] }: Props) {
  const { state, recipe } = view;
  const person = usePerson();
  const units = useUnits();
  const work = useBathWork();
  const [typed, keep, clear] = useKept(`${person.id}:bath:${state.bath.key}`, '');
  const error = (field: string): string | undefined => work.problem?.errors[field]?.[0];
  const heated = state.bath.vessel === 'heated';
  // Taken out before its time: whether it was clean is asked.
  const [early, setEarly] = useState<number | null>(null);
  const out = (basket: Basket, clean: boolean): void => {
    void work.record(state.bath.key, 'takenOut', { trayNumber: basket.tray, clean }).then(() => setEarly(null));
  };
  const inside = state.baskets.some((basket) => basket.tray === tray);
  return (
    <section aria-label={state.bath.label} className="border-line grid content-start gap-2.5 rounded-xl border p-4">
      <div className="flex flex-wrap items-center justify-between gap-3">
        <h3 className="text-part font-bold">{state.bath.label}</h3>
        {heated && (
          <Button
            aria-pressed={state.heaterOn}
            className={state.heaterOn ? 'text-dawn border-dawn' : ''}
            disabled={!mayRecord || work.busy}
            onClick={() => void work.record(state.bath.key, state.heaterOn ? 'heaterOff' : 'heaterOn')}
          >
            <Flame aria-hidden size={18} /> {state.heaterOn ? 'Heater is on' : 'Heater is off'}
          </Button>
        )}
      </div>
      {heated && (
        <>
          <div className="flex flex-wrap items-end gap-x-5 gap-y-2">
            <p className="leading-none">
              <span className="text-number font-heavy">
                {state.temperatureC === null ? '–' : temperature(state.temperatureC, units)}
              </span>
              <span className="text-mute block pt-1">
                {state.temperatureC === null
                  ? 'nobody has read it'
                  : `wanted ${temperature(recipe.lowC ?? 0, units)} to ${temperature(recipe.highC ?? 0, units)}`}
              </span>
            </p>
            {mayRecord && (
              <form
                className="flex items-end gap-2"
                onSubmit={(event) => {
                  event.preventDefault();
                  void work.record(state.bath.key, 'temperature', { temperature: typed }).then((ok) => {
                    if (ok) clear();
                  });
                }}
              >
                <TextField
                  label="Thermometer shows"
                  inputMode="decimal"
                  className="max-w-32"
                  placeholder={units === 'inch' ? '°F' : '°C'}
                  value={typed}
                  problem={error('temperature')}
                  onChange={(event) => keep(event.target.value)}
                />
                <Button type="submit" disabled={work.busy} aria-label="Record the temperature">
                  <Thermometer aria-hidden size={18} /> Record
                </Button>
              </form>
            )}
          </div>
          <BathCurve view={view} now={now} />
          <p className="text-mute leading-snug">
            {state.fitted
              ? `From its own readings: heading for ${temperature(state.endC, units)}, time constant ${Math.round(state.timeConstantMin)} min.`
              : `By the usual time constant of ${Math.round(state.timeConstantMin)} min. Four readings since the heater was switched give its own.`}
          </p>
        </>
      )}
      {work.problem && !error('temperature') && (
        <Notice title={Object.values(work.problem.errors)[0]?.[0] ?? work.problem.title}>
          {Object.keys(work.problem.errors).length === 0 && work.problem.detail}
        </Notice>
      )}
      <ul aria-label={`Baskets of the ${state.bath.label.toLowerCase()}`}>
        {Array.from({ length: state.bath.baskets }, (_, i) => i + 1).map((number) => {
          const basket = state.baskets.find((one) => one.number === number);
          return (
            <li key={number} className="border-line flex min-h-14 flex-wrap items-center gap-x-4 border-t py-1">
              <span className="text-mute w-20">Basket {number}</span>
              {basket ? (
                <>
                  <Link to={trayPath(basket.tray, 'cleaning')} className="font-bold underline underline-offset-4">
                    Tray {basket.tray}
                  </Link>
                  <BasketTime basket={basket} now={now} />
                  {mayRecord && (
                    <span className="ml-auto flex flex-wrap justify-end gap-2">
                      {recipe.moreMinutes !== null && early !== basket.tray && (
                        <Button
                          disabled={work.busy}
                          aria-label={`${recipe.moreMinutes} min more: tray ${basket.tray}`}
                          onClick={() => void work.record(state.bath.key, 'longer', { trayNumber: basket.tray })}
                        >
                          {recipe.moreMinutes} min more
                        </Button>
                      )}
                      {early === basket.tray ? (
                        <>
                          <p className="w-full text-right leading-snug">
                            Before its time: it is not clean yet, unless you see that it is.
                          </p>
                          <Button
                            look="quiet"
                            className="px-2"
                            aria-label={`It stays in: tray ${basket.tray}`}
                            onClick={() => setEarly(null)}
                          >
                            It stays in
                          </Button>
                          <Button
                            look="hands"
                            disabled={work.busy}
                            aria-label={`Goes in again: tray ${basket.tray}`}
                            onClick={() => out(basket, false)}
                          >
                            Goes in again
                          </Button>
                          <Button
                            disabled={work.busy}
                            aria-label={`Clean all the same: tray ${basket.tray}`}
                            onClick={() => out(basket, true)}
                          >
                            Clean all the same
                          </Button>
                        </>
                      ) : (
                        <Button
                          look={basket.standing === 'done' ? 'hands' : 'plain'}
                          disabled={work.busy}
                          aria-label={`It is out: tray ${basket.tray}`}
                          onClick={() => (basket.hasHadItsTime ? out(basket, true) : setEarly(basket.tray))}
                        >
                          It is out
                        </Button>
                      )}
                    </span>
                  )}
                </>
              ) : (
                <span className="text-mute">free</span>
              )}
            </li>
          );
        })}
      </ul>
      {tray !== undefined && !inside && staysOut.length > 0 && (
        <p className="leading-snug">
          <span className="font-strong">Stays out of it:</span> {staysOut.join(', ')}.
        </p>
      )}
      {tray !== undefined && mayRecord && !inside && (
        <Button
          look="hands"
          className="justify-self-start"
          disabled={work.busy || state.freeBaskets.length === 0}
          onClick={() => void work.record(state.bath.key, 'placed', { trayNumber: tray })}
        >
          {state.freeBaskets.length === 0
            ? 'All baskets are in'
            : `Tray ${tray} into basket ${state.freeBaskets[0] ?? ''}`}
        </Button>
      )}
      {recipe.cautions.map((caution) => (
        <div key={caution.key} className="-mx-4 -mb-4 overflow-hidden rounded-b-xl">
          <CautionNote caution={caution} />
        </div>
      ))}
    </section>
  );
}

/** How long a basket still takes, or what it waits for. */
export function BasketTime({ basket, now }: { basket: Basket; now: number }) {
  const done = basket.doneAt !== null && Date.parse(basket.doneAt) <= now;
  if (done || basket.standing === 'done') return <span className="text-ok text-part font-heavy">Time is up</span>;
  if (basket.standing === 'running' && basket.doneAt) {
    return (
      <span>
        <span className="num text-heading font-heavy">{countdown(Date.parse(basket.doneAt), now)}</span>
        <span className="text-mute"> to go</span>
      </span>
    );
  }
  if (basket.standing === 'running')
    return <span className="text-unsure font-bold">Runs, but it cools down too soon</span>;
  if (basket.standing === 'noTemperature')
    return <span className="text-unsure font-bold">Waits: read the thermometer</span>;
  const ready = basket.readyAt ? `, ready in ${countdown(Date.parse(basket.readyAt), now)}` : '';
  return (
    <span className="text-unsure font-bold">
      Waits: {basket.standing === 'tooCold' ? 'too cold' : 'too hot'}
      {ready}
    </span>
  );
}
