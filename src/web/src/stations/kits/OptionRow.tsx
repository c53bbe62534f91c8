import { Check, ChevronDown } from 'lucide-react';
import { Collapsible } from 'radix-ui';
import { useState } from 'react';
import type { FittingView, OptionStanding } from '../../api/client';
import { fitWord } from '../../shell/words';
import { Button } from '../../ui/button';
import { money, percent } from '../../units/format';

interface Props {
  option: OptionStanding;
  decision: FittingView['decision'];
  currency: string;
  /** The right end of the scale. */
  most: number;
  chosen: boolean;
  mayChoose: boolean;
  onChoose: () => void;
}

/** One option: its cost on the scale, what it waits for, how likely it comes back, and the arithmetic. */
export function OptionRow({ option, decision, currency, most, chosen, mayChoose, onChoose }: Props) {
  const [open, setOpen] = useState(false);
  const advised = decision.advised === option.option;
  const over = [
    option.overOwnerLimit && 'over what the owner agreed to',
    option.overWorth && 'over what the machine is worth to mend',
    option.daysLate > 0 && `${option.daysLate} ${option.daysLate === 1 ? 'day' : 'days'} late`,
  ].filter((word) => word !== false);
  return (
    <li className={`border-line border-t py-2.5 ${chosen ? 'bg-paper -mx-3 rounded-lg px-3' : ''}`}>
      <Collapsible.Root open={open} onOpenChange={setOpen}>
        <div className="grid grid-cols-[minmax(0,1fr)_auto_auto] items-start gap-x-4 gap-y-1 max-sm:grid-cols-[minmax(0,1fr)_auto]">
          <div className="min-w-0">
            <p className="text-lead leading-snug">
              <span className="font-bold">{fitWord[option.option]}</span>
              {advised && <span className="bg-ok-soft text-ok ml-2 rounded px-1.5 font-bold">advised</span>}
              {option.option !== 'decline' && <span className="text-mute"> {option.what}</span>}
            </p>
            <p className="leading-snug">
              {option.option === 'decline' ? (
                'Nothing is charged'
              ) : (
                <>
                  Owner pays <span className="num font-strong">{money(option.ownerPays, currency)}</span> ·{' '}
                  {option.waitDays === 0 ? 'no wait' : `${option.waitDays} days to wait`} ·{' '}
                  {percent(option.comebackShare)} come back
                </>
              )}
              {over.length > 0 && <span className="text-bad font-strong"> · {over.join(' · ')}</span>}
            </p>
          </div>
          <Collapsible.Trigger asChild>
            <button
              type="button"
              aria-label={`${money(option.expectedMoney, currency)}, the sum: ${fitWord[option.option]}`}
              className="min-h-11 text-right leading-tight"
            >
              <span className="num block text-title font-bold">{money(option.expectedMoney, currency)}</span>
              <span className="text-mute inline-flex items-center text-note underline underline-offset-4">
                {option.option === 'decline' ? 'the shop’s loss' : 'expected'}
                <ChevronDown aria-hidden size={16} className={open ? 'rotate-180' : ''} />
              </span>
            </button>
          </Collapsible.Trigger>
          <div className="max-sm:col-span-2">
            {chosen ? (
              <span className="text-ok inline-flex min-h-11 min-w-27 items-center gap-1.5 font-bold">
                <Check aria-hidden size={20} /> Chosen
              </span>
            ) : (
              <Button
                look={advised ? 'hands' : 'plain'}
                className="min-w-27"
                disabled={!mayChoose}
                onClick={onChoose}
                aria-label={`${option.option === 'decline' ? 'Decline it' : 'Choose it'}: ${fitWord[option.option]}`}
              >
                {option.option === 'decline' ? 'Decline it' : 'Choose it'}
              </Button>
            )}
          </div>
        </div>
        <CostScale option={option} decision={decision} most={most} />
        <Collapsible.Content>
          <table className="my-1 w-full max-w-2xl text-left">
            <tbody>
              {option.sum.map((line) => (
                <tr key={line.label} className="align-top leading-snug">
                  <th scope="row" className="py-1 pr-3 font-strong">
                    {line.label}
                    <span className="text-mute block font-normal">{line.how}</span>
                  </th>
                  <td className="num py-1 text-right">{money(line.money, currency)}</td>
                </tr>
              ))}
              <tr className="border-line border-t">
                <th scope="row" className="py-1 font-bold">
                  Expected in all
                </th>
                <td className="num py-1 text-right font-bold">{money(option.expectedMoney, currency)}</td>
              </tr>
            </tbody>
          </table>
        </Collapsible.Content>
      </Collapsible.Root>
    </li>
  );
}

/** What the owner pays, solid, and the comeback on top, hatched; the limits as lines. */
function CostScale({ option, decision, most }: Pick<Props, 'option' | 'decision' | 'most'>) {
  const at = (amount: number): string => `${Math.min(100, (100 * amount) / most)}%`;
  const solid = option.option === 'decline' ? 0 : option.ownerPays;
  return (
    <div aria-hidden className="bg-steel relative my-1.5 h-4 overflow-hidden rounded">
      <div
        className="absolute inset-y-0 left-0 bg-[repeating-linear-gradient(135deg,var(--line-strong)_0_3px,transparent_3px_7px)]"
        style={{ width: at(option.expectedMoney) }}
      />
      <div
        className={`absolute inset-y-0 left-0 ${option.overOwnerLimit || option.overWorth ? 'bg-bad' : 'bg-ink'}`}
        style={{ width: at(solid) }}
      />
      {decision.ownerLimit !== null && (
        <div className="bg-dawn absolute inset-y-0 w-[3px]" style={{ left: at(decision.ownerLimit) }} />
      )}
      {decision.worthLimit !== null && (
        <div
          className="absolute inset-y-0 w-0 border-l-[3px] border-dashed border-[var(--unsure)]"
          style={{ left: at(decision.worthLimit) }}
        />
      )}
    </div>
  );
}
