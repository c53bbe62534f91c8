import { Card } from '../../ui/card';
import { useParams } from 'react-router';
import { fitWord } from '../../shell/words';
import { trayPath } from '../../shell/stations';
import type { StationProps } from '../../tray/stationPage';
import { Steps } from '../../ui/steps';
import { DecideStep } from './DecideStep';
import { FittingNote } from './FittingNote';
import { IdentifyStep } from './IdentifyStep';
import { MatchStep } from './MatchStep';

const steps = ['identify', 'match', 'decide'] as const;
type Step = (typeof steps)[number];

/** From whatever is legible to the spec sheet, from the sheet to parts that fit, and from those to what is fitted. */
export default function KitsPage({ tray, writing }: StationProps) {
  const params = useParams();
  const step: Step = steps.find((s) => s === params.step) ?? (tray.spec ? 'match' : 'identify');
  const base = trayPath(tray.number, 'kits');
  return (
    <Card label="Kit">
      <Steps
        label="Kit"
        steps={[
          {
            to: `${base}/identify`,
            label: 'Identify',
            ...(tray.spec ? { note: tray.spec.code } : {}),
            here: step === 'identify',
          },
          { to: `${base}/match`, label: 'Match parts', here: step === 'match' },
          {
            to: `${base}/decide`,
            label: 'Decide',
            ...(tray.fitting ? { note: fitWord[tray.fitting.option].toLowerCase() } : {}),
            here: step === 'decide',
          },
        ]}
      />
      {tray.fitting && step !== 'identify' && <FittingNote tray={tray} writing={writing} />}
      {step === 'identify' && <IdentifyStep tray={tray} writing={writing} />}
      {step === 'match' && <MatchStep tray={tray} writing={writing} />}
      {step === 'decide' && <DecideStep tray={tray} writing={writing} />}
    </Card>
  );
}
