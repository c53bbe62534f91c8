import type { Station, WaitsFor } from '../api/client';

/** What each station is called at the bench. */
export const stationWord: Record<Station, string> = {
  intake: 'Check in',
  kits: 'Kit',
  gauging: 'Gauge',
  setting: 'Set',
  proving: 'Prove',
  handover: 'Hand back',
};

/** Where a station is found under a tray's address. */
export const stationPath: Record<Station, string> = {
  intake: 'check-in',
  kits: 'kit',
  gauging: 'gauge',
  setting: 'set',
  proving: 'prove',
  handover: 'hand-back',
};

export const stations = Object.keys(stationWord) as Station[];

/** What a tray can wait for, in the order the bench lists it. */
export const waitWord: Record<WaitsFor, string> = {
  hands: 'Hands',
  bath: 'Bath',
  runUp: 'Run-up',
  parts: 'Parts',
  bedIn: 'Bed-in',
  owner: 'Owner',
  handedBack: 'Handed back',
};

export const waits = Object.keys(waitWord) as WaitsFor[];

export const trayPath = (number: number, station?: Station): string =>
  `/tray/${number}${station ? `/${stationPath[station]}` : ''}`;
