import { Card } from '../../ui/card';
import { useParams } from 'react-router';
import type { CleaningNote } from '../../api/client';
import { useRecord } from '../../shell/useRecord';
import { useOff } from '../../session/session';
import { useCleaning } from '../../shell/queries';
import { trayPath } from '../../shell/stations';
import type { StationProps } from '../../tray/stationPage';
import { Loading, Notice, Trouble } from '../../ui/states';
import { Steps } from '../../ui/steps';
import { BathStep } from './BathStep';
import { HolesStep } from './HolesStep';
import { MethodStep } from './MethodStep';
import { PassagesStep } from './PassagesStep';

const steps = ['method', 'bath', 'passages', 'holes'] as const;
type Step = (typeof steps)[number];

/** From what is on the parts to how it comes off, the bath, and every passage seen clear. */
export default function CleaningPage({ tray }: StationProps) {
  const cleaning = useCleaning(tray.number);
  const params = useParams();
  const entries = useRecord<CleaningNote>(tray.number);
  const mayRecord = useOff(tray) === undefined;
  if (cleaning.isPending) return <Loading what="how it is cleaned" />;
  if (!cleaning.data) return <Trouble error={cleaning.error} retry={() => void cleaning.refetch()} />;
  const view = cleaning.data;
  const step: Step = steps.find((one) => one === params.step) ?? 'method';
  const base = trayPath(tray.number, 'cleaning');
  const open = view.plan.openPassages;
  const props = {
    tray,
    view,
    mayRecord,
    busy: entries.busy,
    problem: entries.problem,
    record: entries.record,
  };
  return (
    <Card label="Clean">
      <Steps
        label="Clean"
        steps={[
          { to: `${base}/method`, label: 'How', here: step === 'method' },
          { to: `${base}/bath`, label: 'Bath', here: step === 'bath' },
          {
            to: `${base}/passages`,
            label: 'Passages',
            note: open === 0 ? 'all clear' : `${open} open`,
            here: step === 'passages',
          },
          { to: `${base}/holes`, label: 'Tools', here: step === 'holes' },
        ]}
      />
      {entries.problem && (
        <Notice title={Object.values(entries.problem.errors)[0]?.[0] ?? entries.problem.title}>
          {entries.problem.detail}
        </Notice>
      )}
      {step === 'method' && <MethodStep {...props} />}
      {step === 'bath' && <BathStep tray={tray} mayRecord={mayRecord} />}
      {step === 'passages' && <PassagesStep {...props} />}
      {step === 'holes' && <HolesStep view={view} />}
    </Card>
  );
}
