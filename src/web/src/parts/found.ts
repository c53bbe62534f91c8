import type { LedgerLine, UnitSystem } from '../api/client';
import { verdictWord } from '../shell/words';
import { figure, sign, turns } from '../units/format';

/** How a part was found, in one line. */
export function foundWords(line: LedgerLine, units: UnitSystem): string {
  const { found, part } = line;
  if (!found) return '';
  const length = (mm: number): string => `${figure('length', mm, units)} ${sign('length', units)}`;
  return [
    verdictWord[found.verdict].toLowerCase(),
    part.ways.find((way) => way.key === found.way)?.label.toLowerCase(),
    found.turnsEighths != null ? `${turns(found.turnsEighths)} turns` : found.notCounted ? 'turns not counted' : '',
    found.threadMm != null ? `stood in ${length(found.threadMm)}` : '',
    found.screwMm != null ? `screws ${length(found.screwMm)}` : '',
    found.position,
    found.hole ? `hole: ${found.hole}` : '',
    found.from,
    found.remark,
  ]
    .filter(Boolean)
    .join(' · ');
}
