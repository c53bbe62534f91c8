import { Check } from 'lucide-react';
import type { PartsStage, Tray } from '../../api/client';
import { useOff } from '../../session/session';
import { fitWord } from '../../shell/words';
import type { TrayWrite } from '../../tray/useTrayWrite';
import { announce } from '../../ui/announce';
import { Button } from '../../ui/button';
import { focusOnward } from '../../ui/focus';
import { Notice } from '../../ui/states';
import { money } from '../../units/format';
import { useFittingWrite } from './useFittingWrite';

const stageWord: Record<PartsStage, string> = {
  notChosen: '',
  toOrder: 'to order',
  ordered: 'ordered',
  here: 'here',
  taken: '',
};

/** What has been decided, and whether it is here yet. */
export function FittingNote({ tray, writing }: { tray: Tray; writing: TrayWrite }) {
  const work = useFittingWrite(writing);
  const mayWrite = useOff(tray) === undefined;
  const fitting = tray.fitting;
  if (!fitting) return null;
  const here = tray.partsStage === 'here';
  const taken = (done: boolean): void => {
    if (!done) return;
    announce('Taken off the shelf.');
    focusOnward();
  };
  const toOrder = fitting.items.filter((item) => !item.fromShelf);
  return (
    <div className="bg-paper grid gap-2 rounded-lg px-4 py-2.5">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <p className="min-w-0 flex-1 basis-72 leading-snug">
          <Check aria-hidden size={20} className="text-ok mr-1.5 inline align-[-4px]" />
          <span className="font-bold">Chosen for this tray: {fitWord[fitting.option].toLowerCase()}</span>{' '}
          {fitting.option !== 'decline' && (
            <>
              {fitting.items.length > 0
                ? fitting.items
                    .map((item) => `${item.pieces > 1 ? `${item.pieces} ` : ''}${item.number} ${item.name}`)
                    .join(', ')
                : fitting.what}
              , {money(fitting.partsMoney, tray.currency)}
            </>
          )}
          {toOrder.length > 0 ? (
            <span className={`font-strong ${here ? 'text-ok' : 'text-unsure'}`}>
              {' '}
              ·{' '}
              {here && tray.facts.waitNote
                ? tray.facts.waitNote
                : `${stageWord[tray.partsStage]}: ${toOrder.map((item) => item.number).join(', ')}`}
            </span>
          ) : (
            fitting.items.length > 0 && ' · taken from the shelf'
          )}
        </p>
        {toOrder.length > 0 && mayWrite && (
          <Button look={here ? 'hands' : 'plain'} disabled={work.busy} onClick={() => void work.arrived().then(taken)}>
            {here ? 'Take it' : 'It has come: take it'}
          </Button>
        )}
        {mayWrite && (
          <Button look="quiet" disabled={work.busy} onClick={() => void work.unfit()}>
            Undo
          </Button>
        )}
      </div>
      {work.problem && (
        <Notice title={work.problem.title}>
          <p>{work.problem.detail}</p>
          {work.problem.errors['note.instead'] && (
            <Button className="mt-2" disabled={work.busy} onClick={() => void work.arrived(true)}>
              Open that instead
            </Button>
          )}
        </Notice>
      )}
    </div>
  );
}
