import { useState } from 'react';
import type { FitOption, Problem } from '../../api/client';
import { isConflict, type TrayWrite } from '../../tray/useTrayWrite';

/** The decisions of this station: the spec sheet, what is fitted, and that it has come. One at a time. */
export function useFittingWrite({ decide }: TrayWrite) {
  const [problem, setProblem] = useState<Problem | null>(null);
  const [busy, setBusy] = useState(false);
  const run = async (writing: Promise<Problem | null>): Promise<boolean> => {
    setBusy(true);
    const found = await writing;
    setProblem(found && !isConflict(found) ? found : null);
    setBusy(false);
    return found === null;
  };
  return {
    problem,
    busy,
    chooseSpec: (specCode: string, stamped: string) => {
      const stampedNumber = stamped.trim();
      return run(decide({ kind: 'sheet', specCode, stampedNumber }, { specCode, stampedNumber }));
    },
    chooseKit: (kitNumber: string) => run(decide({ kind: 'fitting', option: 'kit', kitNumber }, { fitted: kitNumber })),
    chooseOption: (option: FitOption, what: string, renew: string[]) =>
      run(decide({ kind: 'fitting', option, renew }, { fitted: what })),
    unfit: () => run(decide({ kind: 'unfit' }, { fitted: null })),
    arrived: (instead = false) => run(decide({ kind: 'partsHere', instead }, {})),
  };
}
