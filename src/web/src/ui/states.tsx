import type { ReactNode } from 'react';
import { problemOf } from '../api/client';
import { Button, LinkButton } from './button';

/** While something loads: its room is kept, so that nothing jumps. */
export function Loading({ what }: { what: string }) {
  return (
    <div aria-busy className="grid gap-3 p-5">
      <span className="sr-only">Loading {what}</span>
      {[0.6, 1, 0.8].map((width) => (
        <div key={width} className="bg-steel h-12 animate-pulse rounded-lg" style={{ width: `${width * 100}%` }} />
      ))}
    </div>
  );
}

/** When something could not be loaded: what happened, and what to do. What is not there is not there at a second try. */
export function Trouble({ error, retry, children }: { error: unknown; retry?: () => void; children?: ReactNode }) {
  const problem = problemOf(error);
  const isThere = problem.status !== 404;
  return (
    <div role="alert" className="border-bad bg-sheet m-5 max-w-xl rounded-xl border-2 p-5">
      <h2 className="text-title">{problem.title}</h2>
      <p className="mt-1">{problem.detail}</p>
      <div className="mt-4 flex gap-3">
        {isThere && retry && (
          <Button look="hands" onClick={retry}>
            Try again
          </Button>
        )}
        {children ?? (!isThere && <LinkButton to="/">Go to the bench</LinkButton>)}
      </div>
    </div>
  );
}

/** A problem shown in place, on the sheet where it happened. */
export function Notice({
  tone = 'bad',
  title,
  children,
}: {
  tone?: 'bad' | 'unsure' | 'ok';
  title: string;
  children?: ReactNode;
}) {
  const tones = { bad: 'border-bad bg-bad-soft', unsure: 'border-unsure bg-unsure-soft', ok: 'border-ok bg-ok-soft' };
  return (
    <div role={tone === 'ok' ? 'status' : 'alert'} className={`rounded-lg border-l-4 px-4 py-3 ${tones[tone]}`}>
      <p className="font-bold">{title}</p>
      {children && <div className="mt-0.5">{children}</div>}
    </div>
  );
}
