import { useState } from 'react';
import type { IdentifyView } from '../../api/client';
import { familyWord } from '../../shell/words';
import { Button } from '../../ui/button';
import { TextField } from '../../ui/field';
import { ChooseSheet } from './ChooseSheet';

interface Props {
  sheets: IdentifyView['sheets'];
  chosen: string | undefined;
  mayChoose: boolean;
  onChoose: (code: string) => void;
}

/** Every sheet on file, for whoever knows which one it is. */
export function SheetList({ sheets, chosen, mayChoose, onChoose }: Props) {
  const [open, setOpen] = useState(false);
  const [find, setFind] = useState('');
  const wanted = find.trim().toLowerCase();
  if (!open)
    return (
      <div className="border-line border-t pt-1">
        <Button look="quiet" className="-ml-4" onClick={() => setOpen(true)}>
          Pick from all {sheets.length} sheets
        </Button>
      </div>
    );
  return (
    <div className="border-line grid gap-2 border-t pt-3">
      <TextField
        label="Find a sheet"
        hint="Maker, sheet or number"
        className="max-w-72"
        autoFocus
        value={find}
        onChange={(e) => setFind(e.target.value)}
      />
      <ul className="grid gap-x-6 md:grid-cols-2">
        {sheets
          .filter((s) => `${s.code} ${s.maker} ${s.stampedNumbers.join(' ')}`.toLowerCase().includes(wanted))
          .map((sheet) => (
            <li key={sheet.code} className="border-line flex items-center gap-3 border-b py-1.5">
              <span className="min-w-0 flex-1 leading-snug">
                {sheet.maker} <span className="font-strong">{sheet.code}</span>,{' '}
                {familyWord[sheet.family].toLowerCase()}
                <span className="text-mute num block truncate text-note">{sheet.stampedNumbers.join(', ')}</span>
              </span>
              <ChooseSheet
                code={sheet.code}
                what={sheet.maker}
                chosen={sheet.code === chosen}
                mayChoose={mayChoose}
                onChoose={onChoose}
              />
            </li>
          ))}
      </ul>
    </div>
  );
}
