import { Card } from '../../ui/card';
import { useSearchParams } from 'react-router';
import type { ShelfLine, ShelfStanding, StockView } from '../../api/client';
import { useAllowed } from '../../session/session';
import { shelfWord } from '../../shell/words';
import { money } from '../../units/format';
import { FindItem } from './FindItem';
import { ItemDialog } from './ItemDialog';

const tone: Record<ShelfStanding, string> = {
  out: 'text-bad',
  reorder: 'text-bad',
  onItsWay: 'text-unsure',
  enough: 'text-ok',
  idle: 'text-mute',
};

/** Every item that was ever moved, those to order first. */
export function ShelfSheet({ stock }: { stock: StockView }) {
  // The item that is open stands in the address, so that it can be found and gone back to.
  const [query, setQuery] = useSearchParams();
  const open = query.get('item');
  const setOpen = (item: string | null): void => setQuery(item === null ? {} : { item });
  const mayMove = useAllowed('workAtTheBench');
  return (
    <Card label="Shelf" className="grid gap-3">
      <div className="flex flex-wrap items-end justify-between gap-x-6 gap-y-2">
        <p className="text-mute max-w-xl leading-snug">
          Order when the pieces on hand and on order are down to the reorder point: then the shelf lasts until it comes,
          with {Math.round(stock.defaults.serviceLevel * 100)} % certainty, by the use of the last{' '}
          {stock.defaults.lookBackDays} days.
        </p>
        {mayMove && <FindItem onPick={setOpen} />}
      </div>
      <div className="overflow-x-auto">
        <table className="w-full sm:min-w-[44rem] border-collapse text-left">
          <thead>
            <tr className="text-mute text-note">
              <th className="py-1 pr-3 font-strong">Item</th>
              <th className="py-1 pr-3 text-right font-strong">On hand</th>
              <th className="py-1 pr-3 text-right font-strong max-sm:hidden">On order</th>
              <th className="py-1 pr-3 text-right font-strong">Reorder at</th>
              <th className="py-1 pr-3 text-right font-strong max-sm:hidden">Used</th>
              <th className="py-1 pr-3 text-right font-strong max-sm:hidden">Comes in</th>
              <th className="py-1 pr-3 text-right font-strong max-sm:hidden">Each</th>
              <th className="py-1 font-strong" />
            </tr>
          </thead>
          <tbody>
            {stock.lines.map((line) => (
              <Row key={line.stocked.item.number} line={line} currency={stock.currency} onOpen={setOpen} />
            ))}
          </tbody>
        </table>
      </div>
      {open !== null && (
        <ItemDialog item={open} donors={stock.donors} mayMove={mayMove} onClose={() => setOpen(null)} />
      )}
    </Card>
  );
}

function Row({ line, currency, onOpen }: { line: ShelfLine; currency: string; onOpen: (item: string) => void }) {
  const { item, offers } = line.stocked;
  const best = offers[0];
  return (
    <tr className="border-line border-t">
      <th scope="row" className="py-1 pr-3 font-normal">
        <button
          type="button"
          aria-label={`${item.number} ${item.name}: its moves`}
          onClick={() => onOpen(item.number)}
          className="min-h-11 text-left leading-snug"
        >
          <span className="num decoration-line-strong font-bold underline underline-offset-4">{item.number}</span>{' '}
          {item.name}
        </button>
      </th>
      <td className="num pr-3 text-right text-title font-bold">{line.standing.onHand}</td>
      <td className="num pr-3 text-right max-sm:hidden">{line.standing.onOrder || ''}</td>
      <td className="num pr-3 text-right">{line.reorder.point}</td>
      <td className="num pr-3 text-right max-sm:hidden">{line.standing.usedLately || ''}</td>
      <td className="pr-3 text-right whitespace-nowrap max-sm:hidden">
        {best ? `${line.reorder.leadDays} days` : 'nobody sells it'}
      </td>
      <td className="num pr-3 text-right max-sm:hidden">
        {best ? money(best.packMoney / best.packPieces, currency) : ''}
      </td>
      <td className={`font-bold sm:whitespace-nowrap ${tone[line.against]}`}>{shelfWord[line.against]}</td>
    </tr>
  );
}
