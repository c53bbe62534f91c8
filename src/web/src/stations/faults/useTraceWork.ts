import type { TraceNote } from '../../api/client';
import { useEntries, type Entries } from '../../outbox/useEntries';

/** Recording a step of a trace. */
export function useTraceWork(tray: number): Entries<TraceNote> {
  const { record, ...state } = useEntries(tray);
  return { record: (note) => record({ kind: 'trace', note }), ...state };
}
