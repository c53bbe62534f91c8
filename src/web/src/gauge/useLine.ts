import { useEffect, useMemo, useRef, useState } from 'react';
import {
  api,
  ask,
  type DraftJudgement,
  type Judgement,
  type Line,
  type Problem,
  type Reading,
  type Slip,
  type TypedReading,
} from '../api/client';
import { core } from '../core/core';
import { outbox, type Pending } from '../outbox/outbox';
import { announce } from '../ui/announce';
import { useRested } from '../ui/useRested';
import { isKept, lineDraftKey, useKept, type Draft } from '../outbox/drafts';
import { usePending, useStillKept } from '../shell/useRecord';
import { usePerson } from '../session/session';
import { inBoxes, isEmpty } from './entry';

const nothing: Draft = { group: null, values: {}, rows: [], correcting: null };
const LOOK_MS = 120;
const SOON_MS = 15;
/** How long a hand rests before it is asked whether a number is really so: half of a number is far from everything. */
const REST_MS = 900;

/** What a line says of itself once it is in the book, with where the hand is by then. */
function sayRecorded(line: Line): void {
  const there = document.activeElement?.closest('[data-line]');
  const next = there?.getAttribute('aria-label');
  const onward = there && there.getAttribute('data-line') !== line.key && next ? ` Next: ${next}.` : '';
  announce(`${line.label}: ${line.judgement.word}.${onward}`);
}

interface Preview {
  of: string;
  /** What is wrong with it, box by box. */
  problems: DraftJudgement['problems'];
  judgement: Judgement | null;
  reading: Reading | null;
  slips: Slip[];
}

export interface LineState {
  tray: number;
  draft: Draft;
  typedReading: TypedReading;
  dirty: boolean;
  /** The judgement of what is typed while something is, of what stands otherwise. */
  judgement: Judgement;
  reading: Reading | null;
  /** Field by field what is wrong; only what a person has finished typing is complained about. */
  errors: Record<string, string>;
  refused: Problem | null;
  /** Numbers far from the sheet: asked about before they are recorded, once the hand rests or wants them recorded. */
  slips: Slip[];
  /** Whether there will be something to ask about, asked already or not. */
  doubted: boolean;
  kept: boolean;
  busy: boolean;
  change: (next: Partial<Draft>) => void;
  drop: () => void;
  /** A box that has to be filled is left. */
  leave: (name: string) => void;
  /**
   * True as soon as the reading is kept on this device: the hands go on, and what is refused comes back to its boxes. A
   * correction takes the place of the reading that stands.
   */
  record: (as?: 'correction') => Promise<boolean>;
  /** Records what is far from the sheet: it is really so. */
  insist: () => Promise<boolean>;
  /** Puts what was likely meant into the box. */
  mean: (slip: Slip) => void;
  answer: (values: Record<string, string>) => Promise<boolean>;
}

/** Everything a gauge line does: keeps what is typed, asks for the verdict while it is typed, records it. */
export function useLine(tray: number, line: Line): LineState {
  const person = usePerson();
  const asPending = usePending(tray);
  const key = lineDraftKey(person.id, tray, line.key);
  const [draft, keep, clear] = useKept<Draft>(key, nothing);
  const [preview, setPreview] = useState<Preview | null>(null);
  const [errors, setErrors] = useState<Record<string, string>>({});
  const [refused, setRefused] = useState<Problem | null>(null);
  const [sentId, setSentId] = useState<string[]>([]);
  const kept = useStillKept(sentId);
  const [onTheWay, setOnTheWay] = useState(0);
  const busy = onTheWay > 0;

  const dirty = !isEmpty(draft, line);
  const typedReading = useMemo(() => inBoxes(line, draft, person.units), [draft, line, person.units]);
  const typedKey = JSON.stringify(typedReading);

  useEffect(() => {
    if (!dirty) return undefined;
    const stop = new AbortController();
    const timer = setTimeout(
      () => {
        const body = { lineKey: line.key, typed: JSON.parse(typedKey) as TypedReading };
        // Core on this device says the same as the server's, without the way there and back.
        const fromServer = (): Promise<DraftJudgement> =>
          ask(api.POST('/api/trays/{number}/draft', { params: { path: { number: tray } }, body, signal: stop.signal }));
        void core
          .judge(tray, body)
          .then((said) => said ?? fromServer())
          .then(
            (answer) => {
              if (stop.signal.aborted) return;
              setPreview({ of: typedKey, ...answer });
              // While typing, a field that has become right loses its complaint; new complaints wait for Enter.
              setErrors((before) => {
                const wrong = new Set(answer.problems.map((p) => p.field));
                return Object.fromEntries(Object.entries(before).filter(([field]) => wrong.has(field)));
              });
            },
            () => undefined,
          );
      },
      core.isReady() ? SOON_MS : LOOK_MS,
    );
    return () => {
      clearTimeout(timer);
      stop.abort();
    };
  }, [dirty, typedKey, tray, line.key]);

  const rested = useRested(typedKey, REST_MS);
  const [wanted, setWanted] = useState<string | null>(null);

  // Said when it stands, not while it is typed.
  const mine = useRef(new Set<string>());
  const standingId = line.standing?.entryId;
  useEffect(() => {
    if (standingId && mine.current.delete(standingId)) sayRecorded(line);
  }, [standingId, line]);

  // Two Enters in a row are one reading: the same typed text keeps its entry until it is settled.
  const last = useRef<{ of: string; pending: Pending } | null>(null);
  const send = async (typed: TypedReading, correcting: string | null, sure = false): Promise<boolean> => {
    const of = JSON.stringify([typed, correcting, sure]);
    if (last.current?.of !== of)
      last.current = { of, pending: asPending({ kind: 'reading', line: line.key, typed, sure }, correcting) };
    const { pending } = last.current;
    setOnTheWay((now) => now + 1);
    mine.current.add(pending.id);
    // Once it is kept on the device the boxes are free for the next reading: what is typed while this one is on its
    // way belongs to the next.
    await outbox.keep(pending);
    const taken = draft;
    clear();
    setErrors({});
    setRefused(null);
    void outbox.send([pending]).then((sent) => {
      if (last.current?.pending === pending) last.current = null;
      setOnTheWay((now) => now - 1);
      setPreview((now) => (now?.of === JSON.stringify(typed) ? null : now));
      setSentId(sent.state === 'kept' ? [pending.id] : []);
      if (sent.state === 'kept') announce(`${line.label}: kept on this device.`);
      if (!sent.problem) return;
      if (!isKept(key)) keep(taken);
      setErrors(
        Object.fromEntries(Object.entries(sent.problem.errors).map(([field, messages]) => [field, messages[0] ?? ''])),
      );
      setRefused(Object.keys(sent.problem.errors).length > 0 ? null : sent.problem);
    });
    return true;
  };

  /** What Core or the server has said of what is typed now; Core says it in a moment when it has not been asked yet. */
  const said = async (): Promise<Preview | null> => {
    if (preview?.of === typedKey) return preview;
    const answer = core.isReady() ? await core.judge(tray, { lineKey: line.key, typed: typedReading }) : null;
    const now = answer && { of: typedKey, ...answer };
    if (now) setPreview(now);
    return now;
  };

  // While a reading is on its way its verdict stays in sight.
  const doubted = dirty && preview?.of === typedKey && preview.slips.length > 0;
  const slips = doubted && [rested, wanted].includes(typedKey) ? preview.slips : [];
  // What is asked about is not judged: the verdict is that of what stands.
  const shown = doubted ? null : dirty ? (preview?.of === typedKey ? preview : null) : busy ? preview : null;
  return {
    tray,
    draft,
    typedReading,
    dirty,
    judgement: shown?.judgement ?? line.judgement,
    reading: shown ? shown.reading : (line.standing?.reading ?? null),
    errors,
    refused,
    kept,
    busy,
    change: (next) => {
      setRefused(null);
      keep({ ...draft, ...next });
    },
    drop: () => {
      setErrors({});
      setRefused(null);
      clear();
    },
    slips,
    doubted,
    leave: (name) => {
      // A box left empty shows what stands again.
      const left = { ...draft, values: Object.fromEntries(Object.entries(draft.values).filter(([n]) => n !== name)) };
      if (draft.values[name]?.trim() === '' && !draft.alone) {
        if (isEmpty(left, line) && draft.correcting === null) clear();
        else keep(left);
      }
    },
    record: async (as) => {
      const correcting = as === 'correction' ? (line.standing?.entryId ?? null) : draft.correcting;
      // What cannot be read is said at once, also without the server; nothing of it is kept to be refused later.
      const now = await said();
      if (now && now.problems.length > 0)
        setErrors(Object.fromEntries(now.problems.map(({ field, message }) => [field, message])));
      if (!now || (now.slips.length === 0 && now.problems.length === 0)) return send(typedReading, correcting);
      setWanted(typedKey);
      if (correcting !== draft.correcting) keep({ ...draft, correcting });
      return false;
    },
    insist: () => send(typedReading, draft.correcting, true),
    mean: (slip) => {
      const [, row, column] = /^rows\[(\d+)\]\.(.+)$/.exec(slip.field) ?? [];
      if (slip.likely === null) return;
      setErrors({});
      if (row === undefined || column === undefined)
        keep({ ...draft, values: { ...draft.values, [slip.field]: slip.likely } });
      else {
        // Rows without anything in them were not sent: the nth that was is the nth that has something.
        const meant = typedReading.rows[Number(row)];
        keep({
          ...draft,
          rows: (draft.rows.length > 0 ? draft.rows : typedReading.rows).map((one) =>
            one === meant ? { ...one, [column]: slip.likely ?? '' } : one,
          ),
        });
      }
    },
    answer: (values) => send({ units: person.units, values, rows: [] }, draft.correcting),
  };
}
