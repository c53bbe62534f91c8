import type { ReactNode } from 'react';
import { RuleTicks } from '../ui/rule';

/** What is seen before anybody is signed in: one sheet before the dawn. */
export function Door({ wide = false, children }: { wide?: boolean; children: ReactNode }) {
  return (
    <main className="grid min-h-dvh place-items-center bg-[linear-gradient(180deg,var(--night),var(--night-2)_62%,#573a52_86%,#b04e38)] p-4">
      <div className={`bg-sheet w-full overflow-hidden rounded-xl ${wide ? 'max-w-2xl' : 'max-w-md'}`}>
        <div className="relative h-5 bg-[linear-gradient(var(--steel),var(--steel-2))]">
          <RuleTicks every={10} of={80} height={14} />
        </div>
        {children}
      </div>
    </main>
  );
}
