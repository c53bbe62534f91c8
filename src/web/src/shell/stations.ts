import type { Station } from '../api/client';

interface StationWords {
  /** What it is called at the bench. */
  word: string;
  /** Where it is found under a tray's address. */
  path: string;
}

/** The stations in bench order. Strip, addresses and shortcuts follow from this list; their pages are in stations/registry. */
const words: Record<Station, StationWords> = {
  intake: { word: 'Check in', path: 'check-in' },
  faults: { word: 'Trace', path: 'trace' },
  kits: { word: 'Kit', path: 'kit' },
  strip: { word: 'Strip', path: 'strip' },
  cleaning: { word: 'Clean', path: 'clean' },
  gauging: { word: 'Gauge', path: 'gauge' },
  setting: { word: 'Set', path: 'set' },
  chokes: { word: 'Choke', path: 'choke' },
  build: { word: 'Build', path: 'build' },
  proving: { word: 'Prove', path: 'prove' },
  handover: { word: 'Hand back', path: 'hand-back' },
};

/** Every station, in bench order. */
export const stations = Object.keys(words) as Station[];

export const stationWord = (station: Station): string => words[station].word;

/** The station of an address, or undefined when there is none. */
export const stationAt = (path: string | undefined): Station | undefined =>
  stations.find((station) => words[station].path === path);

/** The station a line is worked at: its key begins with it. */
export const stationOfLine = (line: string): Station | undefined =>
  stations.find((station) => line.startsWith(`${station}/`));

export const trayPath = (number: number, station?: Station): string =>
  `/tray/${number}${station ? `/${words[station].path}` : ''}`;
