import { Check, TriangleAlert } from 'lucide-react';
import { Link } from 'react-router';
import type { CleaningPlan, RecipeOffer } from '../../api/client';
import { usePerson } from '../../session/session';
import { trayPath } from '../../shell/stations';
import { Button, LinkButton } from '../../ui/button';
import { Several } from '../../ui/choice';
import { focusNextThere } from '../../ui/focus';
import { Notice } from '../../ui/states';
import { useLed } from '../../ui/useLed';
import { temperature } from '../../units/format';
import { GoesIn } from './GoesIn';
import { Outcome } from './Outcome';
import type { StepProps } from './step';

/** What is on the parts, and every way to get it off: advised, possible, or not now and why. */
export function MethodStep({ tray, view, mayRecord, busy, problem, record }: StepProps) {
  const { plan } = view;
  const rank = { advised: 0, possible: 1, notNow: 2 } as const;
  const offers = [...plan.offers].sort(
    (a, b) => Number(b.chosen || b.done) - Number(a.chosen || a.done) || rank[a.standing] - rank[b.standing],
  );
  const isDone = plan.offers.some((one) => one.done);
  const step = useLed<HTMLDivElement>({
    step: `${plan.wet} ${plan.soils?.length === 0} ${plan.offers.map((one) => `${one.chosen} ${one.done}`).join()}`,
    busy,
  });
  return (
    <div ref={step} className="grid gap-3">
      <div className="grid gap-1.5">
        <h3 className="text-mute font-strong">What has to come off</h3>
        <div
          className="flex flex-wrap items-center gap-2"
          data-asked={mayRecord && plan.soils === null ? '' : undefined}
        >
          <Several
            label="What has to come off"
            values={plan.soils ?? []}
            disabled={!mayRecord}
            options={view.soils.map((soil) => ({ value: soil.key, label: soil.label }))}
            onChange={(soils) => void record({ kind: 'soils', soils })}
          />
          <Button
            aria-pressed={plan.soils?.length === 0}
            className="aria-pressed:bg-ink aria-pressed:text-sheet"
            disabled={!mayRecord}
            onClick={() => void record({ kind: 'soils', soils: [] })}
          >
            Looks clean
          </Button>
        </div>
      </div>
      {plan.caution && (
        <Notice tone="unsure" title={plan.caution}>
          <Link className="underline underline-offset-4" to={trayPath(tray.number, 'strip')}>
            Write at Strip what is out
          </Link>
        </Notice>
      )}
      {plan.wet && (
        <div className="border-unsure bg-unsure-soft flex flex-wrap items-center justify-between gap-3 rounded-lg border-l-4 px-4 py-2">
          <p className="font-bold">
            Wet from what was used last. Rinse, blow out and dry before anything else follows.
          </p>
          <Button look="hands" disabled={!mayRecord} onClick={() => void record({ kind: 'dry' })}>
            Rinsed and dry
          </Button>
        </div>
      )}
      {isDone && !plan.wet && plan.openPassages > 0 && (
        <LinkButton
          look="hands"
          className="justify-self-start"
          to={`${trayPath(tray.number, 'cleaning')}/passages`}
          onClick={focusNextThere}
        >
          Blow through the passages, {plan.openPassages} open
        </LinkButton>
      )}
      <ul>
        {offers.map((offer) => (
          <Offer
            key={offer.recipe.key}
            tray={tray.number}
            offer={offer}
            plan={plan}
            isDone={isDone}
            mayRecord={mayRecord}
            busy={busy}
            problem={problem}
            record={record}
          />
        ))}
      </ul>
    </div>
  );
}

function Offer({
  tray,
  offer,
  plan,
  isDone,
  mayRecord,
  busy,
  problem,
  record,
}: {
  tray: number;
  offer: RecipeOffer;
  plan: CleaningPlan;
  /** One way has been gone already: another is no longer what is next. */
  isDone: boolean;
  mayRecord: boolean;
  busy: boolean;
  problem: StepProps['problem'];
  record: StepProps['record'];
}) {
  const person = usePerson();
  const { units } = person;
  const { recipe, standing, chosen, done } = offer;
  const draft = `${person.id}:${tray}`;
  const method = (step: 'chosen' | 'dropped'): void => void record({ kind: 'method', recipe: recipe.key, step });
  const long = recipe.minutes >= 120 ? `${Math.round(recipe.minutes / 60)} h` : `${recipe.minutes} min`;
  return (
    <li aria-label={recipe.label} className={`border-line border-t py-2 ${standing === 'notNow' ? 'text-mute' : ''}`}>
      <div className="flex flex-wrap items-start justify-between gap-x-4 gap-y-1">
        <div className="min-w-0 flex-1 basis-80">
          <p className="text-part leading-snug font-bold">
            {recipe.label}
            {standing === 'advised' && !done && (
              <span className="bg-ok-soft text-ok ml-2 rounded px-1.5 text-base">advised</span>
            )}
          </p>
          <p className={`leading-snug ${standing === 'notNow' ? 'text-bad font-strong' : ''}`}>{offer.why}</p>
          {standing !== 'notNow' && (
            <p className="text-mute leading-snug">
              {long}
              {recipe.targetC !== null && (
                <>
                  {' '}
                  at {temperature(recipe.targetC, units)}, from {temperature(recipe.lowC ?? 0, units)} to{' '}
                  {temperature(recipe.highC ?? 0, units)}
                </>
              )}
              . Then: {recipe.rinse.toLowerCase()}. {recipe.dry}.
            </p>
          )}
        </div>
        <div className="flex flex-wrap items-center gap-2">
          {done && (
            <span className="text-ok inline-flex min-h-11 items-center gap-1.5 font-bold">
              <Check aria-hidden size={20} /> Done
            </span>
          )}
          {recipe.vessel !== 'none' && standing !== 'notNow' ? (
            <LinkButton
              look={(standing === 'advised' && !done && !isDone) || chosen ? 'hands' : 'plain'}
              to={`${trayPath(tray, 'cleaning')}/bath`}
            >
              {done ? 'Once more' : 'Into the bath'}
            </LinkButton>
          ) : chosen ? null : (
            standing !== 'notNow' && (
              <Button
                look={standing === 'advised' && !done && !isDone ? 'hands' : 'plain'}
                disabled={!mayRecord}
                aria-label={`${done ? 'Once more' : 'Choose it'}: ${recipe.label}`}
                onClick={() => method('chosen')}
              >
                {done ? 'Once more' : 'Choose it'}
              </Button>
            )
          )}
        </div>
      </div>
      {(chosen || standing === 'advised') && plan.pieces.length > 1 && (
        <GoesIn
          draft={draft}
          offer={offer}
          pieces={plan.pieces}
          mayRecord={mayRecord}
          problem={problem}
          record={record}
        />
      )}
      {chosen && recipe.vessel === 'none' && (
        <Outcome draft={draft} offer={offer} mayRecord={mayRecord} busy={busy} problem={problem} record={record} />
      )}
      {(chosen || standing === 'advised') &&
        recipe.cautions.map((caution) => (
          <p key={caution.key} className="text-unsure mt-1 flex gap-2 leading-snug font-medium">
            <TriangleAlert aria-label="Caution" size={18} className="mt-0.5 shrink-0" />
            {caution.text}
          </p>
        ))}
    </li>
  );
}
