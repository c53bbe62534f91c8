import { lazy } from 'react';
import type { Station } from '../api/client';
import type { StationPage } from '../tray/stationPage';

/** The page of every station, fetched when it is first opened; what they are called is in shell/stations. */
export const stationPages: Record<Station, StationPage> = {
  intake: { Page: lazy(() => import('./intake/IntakePage')) },
  faults: { Page: lazy(() => import('./faults/FaultsPage')) },
  kits: { Page: lazy(() => import('./kits/KitsPage')) },
  strip: { Page: lazy(() => import('./strip/StripPage')) },
  cleaning: { Page: lazy(() => import('./cleaning/CleaningPage')), drawn: true },
  gauging: { Page: lazy(() => import('./gauging/GaugingPage')) },
  setting: { Page: lazy(() => import('./setting/SettingPage')) },
  chokes: { Page: lazy(() => import('./chokes/ChokesPage')) },
  build: { Page: lazy(() => import('./build/BuildPage')), wide: true },
  proving: { Page: lazy(() => import('./proving/ProvingPage')) },
  handover: { Page: lazy(() => import('./handover/HandoverPage')) },
};
