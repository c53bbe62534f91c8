import { useQuery } from '@tanstack/react-query';
import { api, ask, type Tray } from '../../api/client';
import { useKept } from '../../outbox/drafts';
import { useOff, usePerson } from '../../session/session';
import { fitWord } from '../../shell/words';
import type { TrayWrite } from '../../tray/useTrayWrite';
import { Several } from '../../ui/choice';
import { announce } from '../../ui/announce';
import { focusOnward } from '../../ui/focus';
import { Loading, Notice, Trouble } from '../../ui/states';
import { MoneyFact } from './MoneyFact';
import { OptionRow } from './OptionRow';
import { useFittingWrite } from './useFittingWrite';
import { keys } from '../../api/keys';

/** Every way to renew the parts, side by side, with the comeback that is to be expected. */
export function DecideStep({ tray, writing }: { tray: Tray; writing: TrayWrite }) {
  const person = usePerson();
  const work = useFittingWrite(writing);
  const mayWrite = useOff(tray) === undefined;
  const all = tray.wanted.map((part) => part.part);
  const [kept, keepRenew] = useKept<string[] | null>(`${person.id}:${tray.number}:renew`, null);
  const renew = kept ? all.filter((part) => kept.includes(part)) : all;
  const fitting = useQuery({
    queryKey: keys.fitting(tray.number, renew),
    queryFn: () =>
      ask(
        api.GET('/api/trays/{number}/fitting', {
          params: { path: { number: tray.number }, query: { renew: renew.length > 0 ? renew : ['none'] } },
        }),
      ),
    placeholderData: (before) => before,
  });
  const view = fitting.data;
  const onward = (chosen: boolean): void => {
    if (!chosen) return;
    announce('Chosen.');
    focusOnward();
  };
  const possible = view?.decision.options.filter((option) => option.obstacle === null) ?? [];
  const others = view?.decision.options.filter((option) => option.obstacle !== null) ?? [];
  const limits = [view?.decision.ownerLimit, view?.decision.worthLimit].filter((limit) => limit != null);
  const most = Math.max(1, ...possible.map((option) => option.expectedMoney), ...limits) * 1.05;
  return (
    <div className="grid gap-3">
      {work.problem && <Notice title={work.problem.title}>{work.problem.detail}</Notice>}
      {all.length === 0 ? (
        <Notice tone="unsure" title="No parts are known yet.">
          Choose a spec sheet at Identify, or measure the old parts.
        </Notice>
      ) : (
        <div>
          <h3 className="text-mute pb-1 text-note font-strong">Parts to renew</h3>
          <Several
            label="Parts to renew"
            values={renew}
            options={all.map((part) => ({ value: part, label: part }))}
            onChange={keepRenew}
          />
        </div>
      )}
      <div className="flex flex-wrap gap-x-6 gap-y-2">
        <MoneyFact
          label="Owner agreed to"
          value={tray.facts.ownerLimit}
          currency={tray.currency}
          mayChange={mayWrite}
          onChange={(amount) => writing.change({ ownerLimit: amount })}
        />
        <MoneyFact
          label="Machine is worth"
          value={tray.facts.machineWorth}
          currency={tray.currency}
          mayChange={mayWrite}
          onChange={(amount) => writing.change({ machineWorth: amount })}
        />
      </div>
      {fitting.isPending && <Loading what="the options" />}
      {fitting.isError && !view && <Trouble error={fitting.error} retry={() => void fitting.refetch()} />}
      {view && (
        <>
          <p className="bg-ok-soft rounded-lg px-4 py-2 leading-snug">
            <span className="font-bold">Advised: {fitWord[view.decision.advised].toLowerCase()}.</span>{' '}
            {view.decision.why}
          </p>
          <p aria-hidden className="text-mute -mb-2 flex flex-wrap gap-x-5 text-note">
            <Key className="bg-ink h-3 w-5" word="owner pays" />
            <Key
              className="h-3 w-5 bg-[repeating-linear-gradient(135deg,var(--line-strong)_0_3px,transparent_3px_7px)]"
              word="comeback to be expected"
            />
            {view.decision.ownerLimit !== null && <Key className="bg-dawn h-4 w-[3px]" word="owner’s limit" />}
            {view.decision.worthLimit !== null && (
              <Key
                className="h-4 w-0 border-l-[3px] border-dashed border-[var(--unsure)]"
                word="worth mending up to here"
              />
            )}
          </p>
          <ul aria-label="Options">
            {possible.map((option) => (
              <OptionRow
                key={option.option}
                option={option}
                decision={view.decision}
                currency={view.currency}
                most={most}
                chosen={tray.fitting?.option === option.option}
                mayChoose={mayWrite && !work.busy}
                onChoose={() => void work.chooseOption(option.option, fitWord[option.option], renew).then(onward)}
              />
            ))}
          </ul>
          {others.length > 0 && (
            <dl aria-label="Not to be had" className="text-mute grid gap-x-4 leading-snug sm:grid-cols-[auto_1fr]">
              {others.map((option) => (
                <div key={option.option} className="contents">
                  <dt className="font-strong">{fitWord[option.option]}</dt>
                  <dd className="pb-1">{option.obstacle}</dd>
                </div>
              ))}
            </dl>
          )}
        </>
      )}
    </div>
  );
}

function Key({ className, word }: { className: string; word: string }) {
  return (
    <span className="inline-flex items-center gap-1.5">
      <span className={className} /> {word}
    </span>
  );
}
