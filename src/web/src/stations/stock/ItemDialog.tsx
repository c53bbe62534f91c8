import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { v7 as uuidv7 } from 'uuid';
import { api, ask, type DonorView, type StockMoveKind } from '../../api/client';
import { useWrite } from '../../api/useWrite';
import { choices, moveWord } from '../../shell/words';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { Dialog } from '../../ui/dialog';
import { TextField } from '../../ui/field';
import { Loading, Notice, Trouble } from '../../ui/states';
import { money, moment } from '../../units/format';
import { keys } from '../../api/keys';

interface Props {
  item: string;
  donors: DonorView[];
  mayMove: boolean;
  onClose: () => void;
}

/** One item: what is on hand, every move it made, and making another. */
export function ItemDialog({ item, donors, mayMove, onClose }: Props) {
  const view = useQuery({
    queryKey: keys.item(item),
    queryFn: () => ask(api.GET('/api/stock/items/{item}', { params: { path: { item } } })),
  });
  const line = view.data?.line;
  return (
    <Dialog
      title={line ? `${item} ${line.stocked.item.name}` : item}
      {...(line ? { description: `${line.standing.onHand} on hand, ${line.standing.onOrder} on order` } : {})}
      open
      onOpenChange={onClose}
    >
      {view.isPending && <Loading what={item} />}
      {view.isError && <Trouble error={view.error} retry={() => void view.refetch()} />}
      {view.data && line && (
        <div className="grid gap-4">
          {mayMove && (
            <MoveForm
              item={item}
              donors={donors.filter((d) =>
                d.donor.partsLeft.some((p) => line.stocked.item.parts.some((q) => q.part === p.part)),
              )}
            />
          )}
          <p className="text-mute leading-snug">
            {line.standing.usedLately > 0
              ? `${line.standing.usedLately} used lately, ${line.reorder.leadDays} days to come: order at ${line.reorder.point}, ` +
                `which lasts with ${(line.reorder.shareServed * 100).toFixed(1)} % certainty.`
              : 'None used lately: nothing says when to order more.'}{' '}
            {line.stocked.offers.map((offer) => (
              <span key={offer.supplier} className="block">
                {offer.supplier}: {money(offer.packMoney, view.data.currency)}
                {offer.packPieces > 1 && ` for ${offer.packPieces}`}, {offer.leadDays} days
              </span>
            ))}
          </p>
          {view.data.bad.length > 0 && (
            <p className="leading-snug">
              {view.data.bad.map((from) => (
                <span key={from.supplier ?? ''} className="block">
                  <b>
                    {from.bad} came bad
                    {from.received > 0 && ` of ${from.received}`}
                  </b>
                  {from.supplier ? ` from ${from.supplier}` : ', nobody knows who from'}
                </span>
              ))}
            </p>
          )}
          <table className="w-full text-left">
            <caption className="text-mute pb-1 text-left text-note font-strong">Moves, latest first</caption>
            <tbody>
              {view.data.moves.map((move) => (
                <tr key={move.id} className="border-line border-t align-top leading-snug">
                  <td className="py-1.5 pr-3">
                    {moveWord[move.kind]} <span className="num font-bold">{move.pieces}</span>
                    <span className="text-mute block text-note">
                      {[move.trayNumber ? `tray ${move.trayNumber}` : '', move.note, move.by, moment(move.at)]
                        .filter((word) => word !== '')
                        .join(' · ')}
                    </span>
                  </td>
                  <td className="num py-1.5 text-right">
                    {move.onHandAfter}
                    <span className="sr-only"> on hand after it</span>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          {view.data.moves.length === 0 && <p className="text-mute">It was never moved.</p>}
        </div>
      )}
    </Dialog>
  );
}

/** What is moved by hand; an order is taken back where it stands. */
const kinds = choices(moveWord).filter(({ value }) => value !== 'orderTakenBack');

function MoveForm({ item, donors }: { item: string; donors: DonorView[] }) {
  const queries = useQueryClient();
  const [kind, setKind] = useState<StockMoveKind>('received');
  const [pieces, setPieces] = useState('1');
  const [tray, setTray] = useState('');
  const [note, setNote] = useState('');
  const [donor, setDonor] = useState('');
  const [supplier, setSupplier] = useState('');
  const [id, setId] = useState(() => uuidv7());
  const { run, busy, problem } = useWrite(
    () =>
      ask(
        api.POST('/api/stock/moves', {
          body: {
            id,
            item,
            kind,
            pieces: /^\d+$/.test(pieces.trim()) ? Number(pieces) : -1,
            trayNumber: tray.trim() === '' ? null : Number(tray) || -1,
            donorId: kind === 'fromDonor' && donor !== '' ? donor : null,
            note,
            supplier: kind === 'cameBad' ? supplier.trim() || null : null,
          },
        }),
      ),
    {
      changes: [keys.stock],
      done: (moved) => {
        queries.setQueryData(keys.item(item), moved);
        setId(uuidv7());
        setPieces('1');
        setNote('');
      },
    },
  );
  const error = (field: string): string | undefined => problem?.errors[field]?.[0];
  return (
    <form
      className="grid gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        void run();
      }}
    >
      {problem && Object.keys(problem.errors).length === 0 && <Notice title={problem.title}>{problem.detail}</Notice>}
      <Choice
        label="What happened"
        value={kind}
        options={kinds.filter((k) => k.value !== 'fromDonor' || donors.length > 0)}
        onChange={setKind}
        slim
      />
      <div className="grid grid-cols-[7rem_7rem_1fr] gap-3 max-sm:grid-cols-2">
        <TextField
          label={kind === 'counted' ? 'Shelf holds' : 'Pieces'}
          className="num text-title"
          inputMode="numeric"
          problem={error('pieces')}
          value={pieces}
          onChange={(e) => setPieces(e.target.value)}
        />
        <TextField
          label="Tray"
          className="num text-title"
          inputMode="numeric"
          problem={error('trayNumber')}
          value={tray}
          onChange={(e) => setTray(e.target.value)}
        />
        <TextField
          label={kind === 'cameBad' ? 'What is wrong with it' : 'Note'}
          problem={error('note')}
          value={note}
          maxLength={120}
          onChange={(e) => setNote(e.target.value)}
        />
      </div>
      {kind === 'cameBad' && (
        <TextField
          label="Who from"
          hint="Empty: whoever it was last received from"
          problem={error('supplier')}
          value={supplier}
          maxLength={120}
          onChange={(e) => setSupplier(e.target.value)}
        />
      )}
      {kind === 'fromDonor' && (
        <Choice
          label="Which donor"
          value={donor}
          options={donors.map((d) => ({ value: d.donor.id, label: d.donor.name }))}
          onChange={setDonor}
          invalid={error('donorId') !== undefined}
        />
      )}
      {(error('donorId') ?? error('item')) && (
        <p className="text-bad font-medium">{error('donorId') ?? error('item')}</p>
      )}
      <div>
        <Button type="submit" look="hands" disabled={busy}>
          Book it
        </Button>
      </div>
    </form>
  );
}
