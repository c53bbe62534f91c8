import { LinesPage } from '../../gauge/LinesPage';
import type { StationProps } from '../../tray/stationPage';

/** Jets and the emulsion tube. */
export default function GaugingPage({ tray }: StationProps) {
  return <LinesPage tray={tray} station="gauging" title="Gauge jets and emulsion tube" />;
}
