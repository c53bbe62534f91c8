import { lazy, type ComponentType, type LazyExoticComponent } from 'react';
import type { Station, Tray } from '../api/client';
import type { TrayWrite } from '../tray/useTrayWrite';

/** What every station's page is given. */
export interface StationProps {
  tray: Tray;
  /** Changes of what stands on the tray itself. */
  writing: TrayWrite;
}

interface StationEntry {
  /** What it is called at the bench. */
  word: string;
  /** Where it is found under a tray's address. */
  path: string;
  /** Its page, fetched when it is first opened. */
  Page: LazyExoticComponent<ComponentType<StationProps>>;
  /** Whether it takes the whole bench, without the card beside it. */
  wide?: true;
  /** Whether it has a drawing of its own, so that the card beside it has none. */
  drawn?: true;
}

/** The stations in bench order. Strip, addresses, shortcuts and pages follow from this list. */
const registry: Record<Station, StationEntry> = {
  intake: { word: 'Check in', path: 'check-in', Page: lazy(() => import('./intake/IntakePage')) },
  faults: { word: 'Trace', path: 'trace', Page: lazy(() => import('./faults/FaultsPage')) },
  kits: { word: 'Kit', path: 'kit', Page: lazy(() => import('./kits/KitsPage')) },
  strip: { word: 'Strip', path: 'strip', Page: lazy(() => import('./strip/StripPage')) },
  cleaning: { word: 'Clean', path: 'clean', Page: lazy(() => import('./cleaning/CleaningPage')), drawn: true },
  gauging: { word: 'Gauge', path: 'gauge', Page: lazy(() => import('./gauging/GaugingPage')) },
  setting: { word: 'Set', path: 'set', Page: lazy(() => import('./setting/SettingPage')) },
  chokes: { word: 'Choke', path: 'choke', Page: lazy(() => import('./chokes/ChokesPage')) },
  build: { word: 'Build', path: 'build', Page: lazy(() => import('./build/BuildPage')), wide: true },
  proving: { word: 'Prove', path: 'prove', Page: lazy(() => import('./proving/ProvingPage')) },
  handover: { word: 'Hand back', path: 'hand-back', Page: lazy(() => import('./handover/HandoverPage')) },
};

/** Every station, in bench order. */
export const stations = Object.keys(registry) as Station[];

export const stationOf = (station: Station): StationEntry => registry[station];

export const stationWord = (station: Station): string => registry[station].word;

/** The station of an address, or undefined when there is none. */
export const stationAt = (path: string | undefined): Station | undefined =>
  stations.find((station) => registry[station].path === path);

/** The station a line is worked at: its key begins with it. */
export const stationOfLine = (line: string): Station | undefined =>
  stations.find((station) => line.startsWith(`${station}/`));

export const trayPath = (number: number, station?: Station): string =>
  `/tray/${number}${station ? `/${registry[station].path}` : ''}`;
