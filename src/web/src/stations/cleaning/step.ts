import type { CleaningNote, CleaningView, Problem, Tray } from '../../api/client';

/** What every step of Clean works with. */
export interface StepProps {
  tray: Tray;
  view: CleaningView;
  mayRecord: boolean;
  busy: boolean;
  /** What was wrong with the last entry, or null. */
  problem: Problem | null;
  record: (note: CleaningNote) => Promise<boolean>;
}
