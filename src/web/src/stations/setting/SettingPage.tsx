import { LinesPage } from '../../gauge/LinesPage';
import type { StationProps } from '../registry';

/** Float, needle and seat. */
export default function SettingPage({ tray }: StationProps) {
  return <LinesPage tray={tray} station="setting" title="Set float, needle and seat" />;
}
