import { Card } from '../../ui/card';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { v7 as uuidv7 } from 'uuid';
import { api, ask, type StockView } from '../../api/client';
import { useWrite } from '../../api/useWrite';
import { useAllowed, useUnits } from '../../session/session';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { TextField } from '../../ui/field';
import { Notice } from '../../ui/states';
import { features, moment } from '../../units/format';
import { keys } from '../../api/keys';

/** Carburetors kept for their parts, with what is still on them. */
export function DonorsSheet({ stock }: { stock: StockView }) {
  const [adding, setAdding] = useState(false);
  const mayAdd = useAllowed('workAtTheBench');
  const units = useUnits();
  return (
    <section aria-label="Donors" className="grid gap-3">
      {mayAdd && (
        <div>
          <Button onClick={() => setAdding(true)}>Keep a carburetor for parts</Button>
        </div>
      )}
      <ul className="grid gap-3 xl:grid-cols-2">
        {stock.donors.map(({ donor, taken }) => (
          <Card key={donor.id} label={donor.name} as="li" className="grid content-start gap-2">
            <h2 className="text-part">{donor.name}</h2>
            {donor.partsLeft.length === 0 ? (
              <p className="text-mute">Nothing is left on it.</p>
            ) : (
              <ul aria-label={`Still on ${donor.name}`}>
                {donor.partsLeft.map((part) => (
                  <li key={part.part} className="border-line flex gap-3 border-t py-1 leading-snug first:border-t-0">
                    <span className="min-w-40 font-strong">
                      {part.quantity > 1 && `${part.quantity} `}
                      {part.part}
                    </span>
                    <span className="text-mute">{features(part.features, units)}</span>
                  </li>
                ))}
              </ul>
            )}
            {taken.length > 0 && (
              <p className="text-mute text-note leading-snug">
                {taken
                  .map(
                    (off) =>
                      `${off.quantity < 0 ? 'Put back' : 'Taken'}: ${off.part}${off.trayNumber ? `, tray ${off.trayNumber}` : ''}, ${moment(off.at)}`,
                  )
                  .join(' · ')}
              </p>
            )}
          </Card>
        ))}
      </ul>
      {stock.donors.length === 0 && <p className="text-mute">No carburetor is kept for parts.</p>}
      {adding && <AddDonor onClose={() => setAdding(false)} />}
    </section>
  );
}

function AddDonor({ onClose }: { onClose: () => void }) {
  const [id] = useState(() => uuidv7());
  const [name, setName] = useState('');
  const [code, setCode] = useState('');
  const found = useQuery({
    queryKey: keys.identify('sheets'),
    queryFn: () => ask(api.GET('/api/identify')),
    staleTime: 60_000,
  });
  const { run, busy, problem } = useWrite(
    () => ask(api.POST('/api/stock/donors', { body: { id, name, specCode: code.trim().toUpperCase(), without: [] } })),
    { changes: [keys.stock], done: onClose },
  );
  return (
    <Dialog
      title="Keep a carburetor for parts"
      description="Its parts are those its spec sheet knows."
      open
      onOpenChange={onClose}
    >
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          void run();
        }}
      >
        {problem && Object.keys(problem.errors).length === 0 && <Notice title={problem.title}>{problem.detail}</Notice>}
        <TextField
          label="What it is called on the shelf"
          problem={problem?.errors.name?.[0]}
          value={name}
          maxLength={120}
          autoFocus
          onChange={(e) => setName(e.target.value)}
        />
        <TextField
          label="Spec sheet"
          list="sheets-on-file"
          problem={problem?.errors.specCode?.[0]}
          className="max-w-48"
          value={code}
          onChange={(e) => setCode(e.target.value)}
        />
        <datalist id="sheets-on-file">
          {(found.data?.sheets ?? []).map((sheet) => (
            <option key={sheet.code} value={sheet.code}>
              {sheet.maker}
            </option>
          ))}
        </datalist>
        <div className="flex gap-3">
          <Button type="submit" look="hands" disabled={busy}>
            Keep it
          </Button>
          <Button look="quiet" onClick={onClose}>
            Leave it
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
