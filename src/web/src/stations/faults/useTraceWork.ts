import { useState } from 'react';
import { v7 as uuidv7 } from 'uuid';
import type { Problem, TraceNote } from '../../api/client';
import { outbox } from '../../outbox/outbox';
import { usePerson } from '../../session/session';
import { useTakeTrace } from '../../shell/queries';

/** Recording a step of a trace: kept on the device first, then sent. True when it is settled one way or the other. */
export function useTraceWork(tray: number): {
  record: (note: TraceNote) => Promise<boolean>;
  busy: boolean;
  kept: boolean;
  problem: Problem | null;
} {
  const person = usePerson();
  const take = useTakeTrace();
  const [busy, setBusy] = useState(false);
  const [kept, setKept] = useState(false);
  const [problem, setProblem] = useState<Problem | null>(null);
  const record = async (note: TraceNote): Promise<boolean> => {
    setBusy(true);
    const sent = await outbox.record({
      id: uuidv7(),
      personId: person.id,
      tray,
      takenAt: new Date().toISOString(),
      entry: { kind: 'trace', note },
    });
    setBusy(false);
    setKept(sent.state === 'kept');
    setProblem(sent.state === 'refused' ? sent.problem : null);
    if (sent.state === 'traced') take(tray, sent.trace);
    return sent.state !== 'refused';
  };
  return { record, busy, kept, problem };
}
