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
import { isKept, lineDraftKey, useKept, type Draft } from '../outbox/drafts';
import { usePending, useStillKept } from '../outbox/useRecord';
import { usePerson } from '../session/session';

const nothing: Draft = { group: null, values: {}, rows: [], correcting: null };
const LOOK_MS = 120;
const SOON_MS = 15;

const isEmpty = (draft: Draft, line: Line): boolean =>
  Object.values(draft.values).every((v) => v.trim() === '') &&
  draft.rows.every((row) => Object.entries(row).every(([name, v]) => v.trim() === '' || isSuggested(line, name)));

/** A column whose suggested value alone is not something typed, such as the angle of a height. */
const isSuggested = (line: Line, column: string): boolean =>
  line.form.rows?.suggested.some((row) => column in row) ?? false;

/** The way of measuring that what is typed belongs to: the one it was typed for, else the one with all its boxes. */
export const typedGroup = (line: Line, draft: Draft): Line['form']['groups'][number] | undefined => {
  const names = Object.keys(draft.values);
  return (
    line.form.groups.find((g) => g.name === draft.group) ??
    (names.length > 0
      ? line.form.groups.find((g) => names.every((name) => g.fields.some((f) => f.name === name)))
      : undefined)
  );
};

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
  /** Numbers far from the sheet: asked about before they are recorded. */
  slips: Slip[];
  kept: boolean;
  busy: boolean;
  change: (next: Partial<Draft>) => void;
  drop: () => void;
  /** True as soon as the reading is kept on this device: the hands go on, and what is refused comes back to its boxes. */
  record: () => Promise<boolean>;
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
  const typedReading = useMemo<TypedReading>(() => {
    const group = typedGroup(line, draft) ?? line.form.groups[0];
    const names = new Set(group?.fields.map((f) => f.name));
    const values = Object.fromEntries(
      Object.entries(draft.values).filter(([name, text]) => names.has(name) && text.trim() !== ''),
    );
    const rows = draft.rows.filter((row) =>
      Object.entries(row).some(([name, v]) => v.trim() !== '' && !isSuggested(line, name)),
    );
    return { units: person.units, values, rows };
  }, [draft, line, person.units]);
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

  // Two Enters in a row are one reading: the same typed text keeps its entry until it is settled.
  const last = useRef<{ of: string; pending: Pending } | null>(null);
  const send = async (typed: TypedReading, correcting: string | null, sure = false): Promise<boolean> => {
    const of = JSON.stringify([typed, correcting, sure]);
    if (last.current?.of !== of)
      last.current = { of, pending: asPending({ kind: 'reading', line: line.key, typed, sure }, correcting) };
    const { pending } = last.current;
    setOnTheWay((now) => now + 1);
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
  const slips = dirty && preview?.of === typedKey ? preview.slips : [];
  // What is asked about is not judged: the verdict is that of what stands.
  const shown = slips.length > 0 ? null : dirty ? (preview?.of === typedKey ? preview : null) : busy ? preview : null;
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
    record: async () => {
      // What cannot be read is said at once, also without the server; nothing of it is kept to be refused later.
      const now = await said();
      if (now && now.problems.length > 0)
        setErrors(Object.fromEntries(now.problems.map(({ field, message }) => [field, message])));
      return now && (now.slips.length > 0 || now.problems.length > 0) ? false : send(typedReading, draft.correcting);
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
        const sent = draft.rows.filter((one) => typedReading.rows.includes(one));
        const meant = sent[Number(row)];
        keep({
          ...draft,
          rows: draft.rows.map((one) => (one === meant ? { ...one, [column]: slip.likely ?? '' } : one)),
        });
      }
    },
    answer: (values) => send({ units: person.units, values, rows: [] }, draft.correcting),
  };
}
