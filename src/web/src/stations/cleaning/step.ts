import type { CleaningNote, CleaningView, Tray } from '../../api/client';

/** What every step of Clean works with. */
export interface StepProps {
  tray: Tray;
  view: CleaningView;
  mayRecord: boolean;
  busy: boolean;
  record: (note: CleaningNote) => Promise<boolean>;
}
