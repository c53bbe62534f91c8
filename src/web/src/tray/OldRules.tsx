import { api, ask, type Tray } from '../api/client';
import { useWrite } from '../api/useWrite';
import { useAllowed } from '../session/session';
import { keys } from '../api/keys';
import { Button } from '../ui/button';
import { Notice } from '../ui/states';

/** A tray that keeps the shop's rules of when work on it began, and the way to those of today. */
export function OldRules({ tray }: { tray: Tray }) {
  const mayJudge = useAllowed('manageShop');
  const anew = useWrite(
    () => ask(api.POST('/api/trays/{number}/rules', { params: { path: { number: tray.number } } })),
    { changes: [keys.ofTray(tray.number), keys.bench] },
  );
  if (!tray.oldRules || tray.facts.waitsFor === 'handedBack') return null;
  return (
    <Notice tone="unsure" title="Judged by the shop’s rules of before.">
      <p>They were changed after work on this tray began; what was judged stays.</p>
      {mayJudge && (
        <Button className="mt-1.5" disabled={anew.busy} onClick={() => void anew.run()}>
          Judge it by today’s rules
        </Button>
      )}
      {anew.problem && <p>{anew.problem.title}</p>}
    </Notice>
  );
}
