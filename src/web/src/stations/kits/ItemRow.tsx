import { Check, ChevronDown } from 'lucide-react';
import { Collapsible } from 'radix-ui';
import { useState } from 'react';
import type { ItemOffered } from '../../api/client';
import { useUnits } from '../../session/session';
import { Button } from '../../ui/button';
import { money, say } from '../../units/format';
import { PartTable } from './PartTable';

const fitWords = { fits: 'Fits', soFar: 'Fits so far', partly: 'Fits in part', nearMiss: 'Does not fit' } as const;
const fitTone = { fits: 'text-ok', soFar: 'text-unsure', partly: 'text-unsure', nearMiss: 'text-bad' } as const;

interface Props {
  offered: ItemOffered;
  currency: string;
  chosen: boolean;
  mayChoose: boolean;
  onChoose: () => void;
}

/** One kit: how it fits and why, what it costs, whether it is here, and what took its place. */
export function ItemRow({ offered, currency, chosen, mayChoose, onChoose }: Props) {
  const units = useUnits();
  const [open, setOpen] = useState(false);
  const { item, match, onHand, offers, instead } = offered;
  const best = offers[0];
  return (
    <li className={`border-line border-t py-3 ${chosen ? 'bg-paper -mx-3 rounded-lg px-3' : ''}`}>
      <Collapsible.Root open={open} onOpenChange={setOpen}>
        <div className="grid grid-cols-[1fr_auto] gap-x-4 gap-y-1">
          <div>
            <p className="text-lead">
              <span className="num font-bold">{item.number}</span> {item.name}, {item.maker}
            </p>
            <p className="leading-snug">
              <span className={`font-bold ${fitTone[match.verdict]}`}>{fitWords[match.verdict]}.</span>{' '}
              {say(match.reason, units)}
            </p>
            {instead.length > 0 && (
              <p className="text-unsure leading-snug">
                No longer made.{' '}
                {instead.map((step) => (
                  <span key={step.old}>
                    {step.new} takes its place: {step.changed}.{' '}
                  </span>
                ))}
              </p>
            )}
            {offered.takesPlaceOf.length > 0 && (
              <p className="text-mute leading-snug">
                {offered.takesPlaceOf.map((step) => `Takes the place of ${step.old}: ${step.changed}.`).join(' ')}
              </p>
            )}
          </div>
          <div className="text-right">
            {best && <p className="num text-part font-bold">{money(best.packMoney / best.packPieces, currency)}</p>}
            <p className={onHand > 0 ? 'text-mute' : 'text-unsure font-strong'}>
              {onHand > 0 ? `${onHand} on the shelf` : 'none on the shelf'}
            </p>
            {onHand === 0 && best && <p className="text-mute">{best.leadDays} days</p>}
          </div>
        </div>
        <div className="mt-1 flex flex-wrap items-center gap-2">
          {chosen ? (
            <span className="text-ok inline-flex min-h-11 items-center gap-1.5 font-bold">
              <Check aria-hidden size={20} /> Chosen
            </span>
          ) : (
            (onHand > 0 || best) && (
              <Button
                look={match.verdict === 'fits' && instead.length === 0 ? 'hands' : 'plain'}
                disabled={!mayChoose}
                onClick={onChoose}
                aria-label={`${onHand > 0 ? 'Choose it' : 'Choose it, to order'}: ${item.number}`}
              >
                {onHand > 0 ? 'Choose it' : 'Choose it, to order'}
              </Button>
            )
          )}
          <Collapsible.Trigger asChild>
            <Button look="quiet" aria-label={`Part by part: ${item.number}`}>
              Part by part <ChevronDown aria-hidden size={18} className={open ? 'rotate-180' : ''} />
            </Button>
          </Collapsible.Trigger>
        </div>
        <Collapsible.Content className="pt-1">
          <PartTable item={item} parts={match.parts} />
        </Collapsible.Content>
      </Collapsible.Root>
    </li>
  );
}
