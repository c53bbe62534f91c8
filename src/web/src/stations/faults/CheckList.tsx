import { Card } from '../../ui/card';
import { ChevronDown } from 'lucide-react';
import { Collapsible } from 'radix-ui';
import { useState } from 'react';
import type { CheckValue } from '../../api/client';
import { Button } from '../../ui/button';

/** Every other check, best first: what it costs and where it would lead. */
export function CheckList({
  checks,
  mayRecord,
  onChoose,
}: {
  checks: CheckValue[];
  mayRecord: boolean;
  onChoose: (check: CheckValue) => void;
}) {
  const [open, setOpen] = useState(false);
  const best = Math.min(...checks.map((value) => value.expectedMinutes));
  return (
    <Collapsible.Root open={open} onOpenChange={setOpen} asChild>
      <Card label="Other checks" pad="rows" className="block">
        <Collapsible.Trigger className="flex min-h-11 w-full items-center justify-between text-left text-lead font-strong">
          Any other check ({checks.length})
          <ChevronDown aria-hidden size={20} className={open ? 'rotate-180' : ''} />
        </Collapsible.Trigger>
        <Collapsible.Content>
          <table className="w-full text-left">
            <thead>
              <tr className="text-mute text-note">
                <th className="py-1 pr-3 font-strong">Check</th>
                <th className="py-1 pr-3 text-right font-strong">Takes</th>
                <th className="py-1 pr-3 text-right font-strong">Longer than the best</th>
                <td />
              </tr>
            </thead>
            <tbody>
              {checks.map((value) => (
                <tr key={value.check.id} className="border-line border-t">
                  <th scope="row" className="py-1 pr-3 leading-tight font-medium">
                    {value.check.label}
                  </th>
                  <td className="num py-1 pr-3 text-right whitespace-nowrap">{Math.round(value.minutes)} min</td>
                  <td className="num py-1 pr-3 text-right whitespace-nowrap">
                    {Math.round(value.expectedMinutes - best) < 1
                      ? ''
                      : `${Math.round(value.expectedMinutes - best)} min`}
                  </td>
                  <td className="py-1 text-right">
                    <Button
                      look="quiet"
                      disabled={!mayRecord}
                      aria-label={`Do it: ${value.check.label}`}
                      onClick={() => onChoose(value)}
                    >
                      Do it
                    </Button>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </Collapsible.Content>
      </Card>
    </Collapsible.Root>
  );
}
