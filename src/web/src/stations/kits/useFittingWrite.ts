import { useState } from 'react';
import { api, ask, type FitOption, type Problem, type Tray } from '../../api/client';
import { isConflict, type TrayWrite } from '../../tray/useTrayWrite';

/** The writes of this station: the spec sheet, what is fitted, and that it has come. One at a time. */
export function useFittingWrite(tray: Tray, { write }: TrayWrite) {
  const [problem, setProblem] = useState<Problem | null>(null);
  const [busy, setBusy] = useState(false);
  const where = { params: { path: { number: tray.number } } };
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
    chooseSpec: (specCode: string, stampedNumber: string) =>
      run(
        write({ specCode, stampedNumber: stampedNumber.trim() }, (entryId, version) =>
          ask(api.PUT('/api/trays/{number}/spec', { ...where, body: { entryId, version, specCode, stampedNumber } })),
        ),
      ),
    chooseKit: (kitNumber: string) =>
      run(
        write({ fitted: kitNumber }, (entryId, version) =>
          ask(
            api.PUT('/api/trays/{number}/fitting', {
              ...where,
              body: { entryId, version, option: 'kit', kitNumber },
            }),
          ),
        ),
      ),
    chooseOption: (option: FitOption, what: string, renew: string[]) =>
      run(
        write({ fitted: what }, (entryId, version) =>
          ask(api.PUT('/api/trays/{number}/fitting', { ...where, body: { entryId, version, option, renew } })),
        ),
      ),
    arrived: () =>
      run(
        write({}, (entryId, version) =>
          ask(api.PUT('/api/trays/{number}/fitting/arrived', { ...where, body: { entryId, version } })),
        ),
      ),
  };
}
