import { useEffect, useRef, useState } from 'react';
import type { LedgerLine, LineVerdict, OutNote } from '../../api/client';
import { isFree } from '../../ui/focus';
import { useKept } from '../../outbox/drafts';
import { usePerson, useUnits } from '../../session/session';
import { verdictWord } from '../../shell/words';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { TextField } from '../../ui/field';
import { sign } from '../../units/format';
import { HoleChoice } from '../../parts/HoleChoice';
import { PartPhotos } from '../../parts/PartPhotos';
import { TurnsChoice } from '../../parts/TurnsChoice';
import { WayChoice } from '../../parts/WayChoice';

interface Props {
  tray: number;
  line: LedgerLine;
  usual: LineVerdict;
  /** Most eighths of a turn that are taken. */
  most: number;
  /** Takes the focus when it is the next to come out. */
  eager: boolean;
  onRecord: (note: OutNote) => Promise<boolean>;
  onStays: () => Promise<boolean>;
  onNone: () => Promise<boolean>;
  errors: Record<string, string[]>;
}

interface Draft {
  verdict: LineVerdict | '';
  way: string;
  eighths: number | null;
  notCounted: boolean;
  /** Nobody saw which way round it was. */
  notSeen?: boolean;
  thread: string;
  screw: string;
  position: string;
  heads: string;
  hole: string;
  remark: string;
}

const empty: Draft = {
  verdict: '',
  way: '',
  eighths: null,
  notCounted: false,
  thread: '',
  screw: '',
  position: '',
  hole: '',
  heads: '',
  remark: '',
};

/** What can be said of a part the carburetor should have; what was added has a form of its own. */
const verdicts = (Object.keys(verdictWord) as LineVerdict[])
  .filter((value) => value !== 'added' && value !== 'ours')
  .map((value) => ({ value, label: verdictWord[value] }));

/** How a part was found as it came out. An ordinary one takes one key; everything else is at hand. */
export function FoundForm({ tray, line, usual, most, eager, onRecord, onStays, onNone, errors }: Props) {
  const { part } = line;
  const person = usePerson();
  const units = useUnits();
  const [draft, keep, clear] = useKept<Draft>(`${person.id}:strip:${tray}:${part.key}`, empty);
  const out = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    // The next part to come out is a key away, as soon as its key can be pressed; a hand that is elsewhere is left alone.
    if (!eager || !isFree()) return;
    out.current?.focus({ preventScroll: true });
    out.current?.closest('li')?.scrollIntoView({ block: 'center' });
  }, [eager]);
  useEffect(() => {
    // Enter takes the next one, also in the moment in which the focus is nowhere.
    if (!eager) return;
    const take = (event: KeyboardEvent): void => {
      if (event.key === 'Enter' && !event.repeat && document.activeElement === document.body) out.current?.click();
    };
    window.addEventListener('keydown', take);
    return () => window.removeEventListener('keydown', take);
  }, [eager]);
  const put = (change: Partial<Draft>): void => keep({ ...draft, ...change });
  const verdict = draft.verdict || usual;
  const asks = (what: (typeof part.asks)[number]): boolean => part.asks.includes(what);
  const error = (field: string): string | undefined => errors[`note.${field}`]?.[0];
  // A second press on the same part while the first is on its way is the same press; another part does not wait for it.
  const sent = useRef(false);
  const once = async (settles: () => Promise<boolean>): Promise<void> => {
    if (sent.current) return;
    sent.current = true;
    try {
      if (await settles()) clear();
    } finally {
      sent.current = false;
    }
  };
  const form = useRef<HTMLFormElement>(null);
  const [askedOf, setAsked] = useState<'' | 'turns' | 'way'>('');
  /** What is gone once the part is out and has not been said yet. */
  const gone = (said: Draft): '' | 'turns' | 'way' =>
    asks('way') && part.wayGroup && said.way === '' && !said.notSeen
      ? 'way'
      : asks('turns') && said.eighths === null && !said.notCounted
        ? 'turns'
        : '';
  const send = async (said: Draft): Promise<void> => {
    const missing = gone(said);
    setAsked(missing);
    if (missing !== '') {
      form.current?.querySelector<HTMLElement>(missing === 'way' ? '[data-not-seen]' : '[data-not-counted]')?.focus();
      return;
    }
    const draft = said;
    const note: OutNote = {
      kind: 'out',
      part: part.key,
      verdict,
      way: draft.way || null,
      turnsEighths: draft.notCounted ? null : draft.eighths,
      notCounted: asks('turns') && draft.eighths === null,
      thread: draft.thread.trim() || null,
      screw: draft.screw.trim() || null,
      units,
      position: draft.position.trim() || null,
      hole: draft.hole.trim() || null,
      heads: draft.heads.trim() || null,
      remark: draft.remark.trim() || null,
    };
    await once(() => onRecord(note));
  };
  return (
    <form
      ref={form}
      className="grid gap-2.5 py-2"
      onSubmit={(event) => {
        event.preventDefault();
        void send(draft);
      }}
    >
      {part.remind && <p className="leading-snug">{part.remind}</p>}
      {asks('way') && (
        <WayChoice
          part={part}
          label={`Which way round was it: ${part.label}`}
          value={draft.way}
          onChange={(way) => put({ way })}
          onEnter={() => out.current?.focus()}
          onNotSeen={() => {
            put({ notSeen: true });
            void send({ ...draft, notSeen: true });
          }}
        />
      )}
      {asks('turns') && (
        <div className="flex flex-wrap items-center gap-2">
          <TurnsChoice
            label={`Turns in to the seat: ${part.label}`}
            value={draft.notCounted ? null : draft.eighths}
            most={most}
            onChange={(eighths) => put({ eighths, notCounted: false })}
          />
          <Button
            data-not-counted
            aria-pressed={draft.notCounted}
            onClick={() => {
              put({ notCounted: true, eighths: null });
              void send({ ...draft, notCounted: true, eighths: null });
            }}
          >
            Not counted
          </Button>
        </div>
      )}
      {askedOf !== '' && gone(draft) === askedOf && (
        <p role="alert" className="text-unsure font-strong">
          {askedOf === 'way'
            ? 'Which way round it was is gone once it is out. Choose it, or press Enter again: not seen.'
            : 'How far it was screwed in is gone once it is out. Count it, or press Enter again: not counted.'}
        </p>
      )}
      <div className="flex flex-wrap gap-3">
        {asks('thread') && (
          <TextField
            label={`Thread stood in, ${sign('length', units)}`}
            className="max-w-36"
            value={draft.thread}
            problem={error('thread')}
            onChange={(event) => put({ thread: event.target.value })}
          />
        )}
        {asks('hole') && (
          <div className="grid w-full gap-1.5">
            <HoleChoice label="Which hole, as you look at it" value={draft.hole} onChange={(hole) => put({ hole })} />
            <TextField
              label="Which hole"
              placeholder="or in your own words"
              value={draft.hole}
              problem={error('hole')}
              onChange={(event) => put({ hole: event.target.value })}
            />
          </div>
        )}
        {asks('place') && (
          <TextField
            label="Where it sat"
            placeholder={
              asks('match') ? 'where its other end hooks in' : 'its seat, its clamp, the prints of its washers'
            }
            value={draft.position}
            problem={error('position')}
            onChange={(event) => put({ position: event.target.value })}
          />
        )}
        {asks('match') && (
          <Choice
            label={`How the spring is: ${part.label}`}
            value={
              verdict === 'broken' ? 'broken' : draft.remark === stretched ? 'bent' : draft.verdict ? 'straight' : ''
            }
            options={[
              { value: 'straight', label: 'Straight' },
              { value: 'bent', label: 'Bent or stretched' },
              { value: 'broken', label: 'Broken' },
            ]}
            onChange={(is) =>
              put({
                verdict: is === 'broken' ? 'broken' : is === 'bent' ? 'renew' : 'refit',
                remark: is === 'bent' ? stretched : draft.remark === stretched ? '' : draft.remark,
              })
            }
            small
          />
        )}
        {asks('screw') && (
          <TextField
            label={`Screws, ${sign('length', units)}`}
            className="max-w-36"
            value={draft.screw}
            problem={error('screw')}
            onChange={(event) => put({ screw: event.target.value })}
          />
        )}
        {(asks('screw') || asks('bolt')) && (
          <>
            <TextField
              label="Heads and how many"
              className="max-w-44"
              placeholder="10 mm, two"
              value={draft.heads}
              problem={error('heads')}
              onChange={(event) => put({ heads: event.target.value })}
            />
            <TextField
              label="Which went where"
              placeholder="long ones left"
              value={draft.position}
              problem={error('position')}
              onChange={(event) => put({ position: event.target.value })}
            />
          </>
        )}
      </div>
      <div className="flex flex-wrap items-center gap-2">
        <Button ref={out} type="submit" look="hands" aria-label={`${outWord(verdict)}: ${part.label}`}>
          {outWord(verdict)}
        </Button>
        <Choice
          label={`What becomes of it: ${part.label}`}
          value={verdict}
          options={verdicts}
          onChange={(next) => put({ verdict: next })}
          small
        />
        <Button look="quiet" className="px-2!" onClick={() => void once(onStays)}>
          Stays in
        </Button>
        <Button
          look="quiet"
          className="px-2!"
          aria-label={`It has none: ${part.label}`}
          onClick={() => void once(onNone)}
        >
          It has none
        </Button>
      </div>
      <details className="group">
        <summary className="text-mute min-h-9 cursor-pointer py-1.5">Remark, photo</summary>
        <div className="grid gap-2 pb-1">
          <TextField
            label="Remark"
            value={draft.remark}
            problem={error('remark')}
            onChange={(event) => put({ remark: event.target.value })}
          />
          <PartPhotos tray={tray} part={part.key} mayAdd />
        </div>
      </details>
    </form>
  );
}

/** What is remarked of a spring that lost its shape. */
const stretched = 'bent or stretched';

const outWord = (verdict: LineVerdict): string =>
  verdict === 'missing' ? 'It is missing' : verdict === 'doesNotBelong' ? 'Out, does not belong' : 'It is out';
