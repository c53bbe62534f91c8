import { Check, ChevronDown, PenLine } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { useState } from 'react';
import type { Tray, WaitsFor } from '../api/client';
import { localToday, day, daysBetween } from '../units/format';
import { familyWord, waits, waitWord } from '../shell/words';
import { Button } from '../ui/button';
import { Dialog } from '../ui/dialog';
import { TextField } from '../ui/field';
import { Notice } from '../ui/states';
import { Tag } from '../ui/tag';
import { remarksOf } from './remarks';
import type { TrayChange } from './useTrayWrite';

/** Who it is, what it does, when it is promised for and what it waits for. */
export function TrayHeader({
  tray,
  onChange,
  onNote,
  problem,
}: {
  tray: Tray;
  onChange: (change: TrayChange) => Promise<boolean>;
  /** Opens a note; null where none is taken. */
  onNote: (() => void) | null;
  problem: string;
}) {
  const { facts } = tray;
  const remarks = remarksOf(tray).length;
  const [noteFor, setNoteFor] = useState<WaitsFor | null>(null);
  const today = localToday();
  const late = facts.waitsFor !== 'handedBack' && daysBetween(today, facts.promisedDay) < 0;
  return (
    <header className="grid gap-2">
      <div className="flex items-center gap-x-4 gap-y-2 max-sm:flex-wrap max-sm:gap-x-3 max-sm:gap-y-0">
        <span aria-hidden>
          <Tag number={tray.number} large />
        </span>
        <div className="min-w-0 flex-1 sm:basis-64">
          <h1 className="text-heading max-sm:text-title leading-tight">
            <span className="sr-only">Tray {tray.number}, </span>
            {facts.machineName}
          </h1>
          <p className="text-mute leading-snug max-sm:line-clamp-1">
            {facts.ownerName}
            {tray.spec ? ` · ${tray.spec.maker} ${tray.spec.code}` : ''} · {familyWord[facts.family].toLowerCase()}
            {facts.stampedNumber ? `, stamped ${facts.stampedNumber}` : ', stamp not read'} · {facts.complaint}
          </p>
        </div>
        <div className="text-right max-sm:flex max-sm:w-full max-sm:items-center max-sm:justify-between">
          <p className={`font-bold ${late ? 'text-dawn' : ''}`}>
            {late ? 'Was due' : 'Due'} {day(facts.promisedDay, today)}
          </p>
          <span className="inline-flex items-center gap-1">
            {onNote && (
              <Button look="quiet" onClick={onNote}>
                <PenLine aria-hidden size={18} /> Note{remarks > 0 ? `s: ${remarks}` : ''}
              </Button>
            )}
            <DropdownMenu.Root>
              <DropdownMenu.Trigger className="hover:bg-steel -mr-2 inline-flex min-h-11 items-center gap-1 rounded-lg px-2">
                {facts.waitsFor === 'handedBack'
                  ? 'Handed back'
                  : `Waits for ${waitWord[facts.waitsFor].toLowerCase()}`}
                <ChevronDown aria-hidden size={18} />
              </DropdownMenu.Trigger>
              <DropdownMenu.Portal>
                <DropdownMenu.Content
                  align="end"
                  className="bg-sheet border-line-strong z-30 min-w-52 rounded-xl border p-1.5 shadow-lg"
                >
                  {waits
                    .filter((w) => w !== 'handedBack')
                    .map((w) => (
                      <DropdownMenu.Item
                        key={w}
                        className="data-[highlighted]:bg-steel flex min-h-11 items-center justify-between gap-4 rounded-lg px-3 outline-none"
                        onSelect={() => {
                          if (w === 'hands') void onChange({ waitsFor: w, waitNote: '' });
                          else setNoteFor(w);
                        }}
                      >
                        {facts.waitsFor === 'handedBack' && w === 'hands' ? 'Bring it back to the bench' : waitWord[w]}
                        {facts.waitsFor === w && <Check aria-label="now" size={18} />}
                      </DropdownMenu.Item>
                    ))}
                </DropdownMenu.Content>
              </DropdownMenu.Portal>
            </DropdownMenu.Root>
          </span>
        </div>
      </div>
      {facts.waitNote && (
        <p className="bg-steel rounded-lg px-3 py-1.5">
          {facts.waitsFor === 'hands' ? facts.waitNote : `${waitWord[facts.waitsFor]}: ${facts.waitNote}`}
        </p>
      )}
      {problem && <Notice title={problem} />}
      {noteFor && (
        <WaitNote
          wait={noteFor}
          note={facts.waitsFor === noteFor ? facts.waitNote : ''}
          onClose={() => setNoteFor(null)}
          onSave={async (note) => {
            if (await onChange({ waitsFor: noteFor, waitNote: note })) setNoteFor(null);
          }}
        />
      )}
    </header>
  );
}

function WaitNote({
  wait,
  note,
  onClose,
  onSave,
}: {
  wait: WaitsFor;
  note: string;
  onClose: () => void;
  onSave: (note: string) => Promise<void>;
}) {
  const [text, setText] = useState(note);
  return (
    <Dialog
      title={`Waits for ${waitWord[wait].toLowerCase()}`}
      description="What is it waiting for, and until when?"
      open
      onOpenChange={onClose}
    >
      <form
        className="grid gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          void onSave(text);
        }}
      >
        <TextField
          label="Note"
          value={text}
          maxLength={200}
          onChange={(event) => setText(event.target.value)}
          autoFocus
        />
        <div className="flex gap-3">
          <Button type="submit" look="hands">
            Put it there
          </Button>
          <Button look="quiet" onClick={onClose}>
            Leave it
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
