import { Check } from 'lucide-react';
import type { Tray } from '../../api/client';
import { useMay } from '../../session/session';
import { fitWord } from '../../shell/words';
import type { TrayWrite } from '../../tray/useTrayWrite';
import { Button } from '../../ui/button';
import { Notice } from '../../ui/states';
import { money } from '../../units/format';
import { useFittingWrite } from './useFittingWrite';

/** What has been decided, and whether it is here yet. */
export function FittingNote({ tray, writing }: { tray: Tray; writing: TrayWrite }) {
  const work = useFittingWrite(writing);
  const mayWrite = useMay('workAtTheBench') && tray.facts.waitsFor !== 'handedBack';
  const fitting = tray.fitting;
  if (!fitting) return null;
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
            <span className="text-unsure font-strong">
              {' '}
              · to order: {toOrder.map((item) => item.number).join(', ')}
            </span>
          ) : (
            fitting.items.length > 0 && ' · taken from the shelf'
          )}
        </p>
        {toOrder.length > 0 && mayWrite && (
          <Button disabled={work.busy} onClick={() => void work.arrived()}>
            It has come: take it
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
