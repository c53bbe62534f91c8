import { useState } from 'react';
import { useLocation } from 'react-router';
import type { Tray } from '../api/client';
import { Button, LinkButton } from '../ui/button';

/** What a page is told when it is opened straight from check-in. */
export interface FromCheckIn {
  checkedIn: number;
}

/** Right after check-in: the number to write on the tag, its label, and the next one of the same owner. */
export function JustCheckedIn({ tray }: { tray: Tray }) {
  const state = useLocation().state as Partial<FromCheckIn> | null;
  const [shown, setShown] = useState(true);
  if (!shown || state?.checkedIn !== tray.number) return null;
  const another = new URLSearchParams({ owner: tray.facts.ownerName });
  return (
    <section
      aria-label="Checked in"
      className="bg-ok-soft border-ok flex flex-wrap items-center gap-x-5 gap-y-2 rounded-xl border-l-4 px-4 py-2.5"
    >
      <p className="flex items-baseline gap-3">
        <span className="font-strong">Checked in: tray</span>
        <span className="num text-heading leading-none font-heavy">{tray.number}</span>
      </p>
      <span className="ml-auto flex flex-wrap gap-2">
        <LinkButton to={`/tray/${tray.number}/label`}>Its label</LinkButton>
        <LinkButton to={`/check-in?${another}`}>Another for {tray.facts.ownerName}</LinkButton>
        <Button look="quiet" onClick={() => setShown(false)}>
          Close
        </Button>
      </span>
    </section>
  );
}
