import type { CarburetorFamily } from '../../api/client';
import { LinesPage } from '../../gauge/LinesPage';
import type { StationProps } from '../../tray/stationPage';

/** What there is to set on each family. */
const titles: Record<CarburetorFamily, string> = {
  floatBowl: 'Set float, needle and seat',
  diaphragm: 'Set lever, diaphragms and needle',
  suctionTank: 'Look over pipes, choke and tank',
};

/** Float, needle and seat; the metering side; what stands on the tank. */
export default function SettingPage({ tray }: StationProps) {
  return <LinesPage tray={tray} station="setting" title={titles[tray.facts.family]} />;
}
