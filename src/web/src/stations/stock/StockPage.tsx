import { useQuery } from '@tanstack/react-query';
import { useParams } from 'react-router';
import { api, ask } from '../../api/client';
import { Loading, Trouble } from '../../ui/states';
import { Steps } from '../../ui/steps';
import { BuyingSheet } from './BuyingSheet';
import { CatalogueSheet } from './CatalogueSheet';
import { DonorsSheet } from './DonorsSheet';
import { OrdersSheet } from './OrdersSheet';
import { ShelfSheet } from './ShelfSheet';
import { useTitle } from '../../shell/title';
import { keys } from '../../api/keys';

const parts = ['shelf', 'donors', 'buying', 'orders', 'catalogue'] as const;
const partWord = {
  shelf: 'Shelf',
  donors: 'Donors',
  buying: 'Buying',
  orders: 'On order',
  catalogue: 'Catalogue',
} as const;

/** What is on the shelf, what is left on donors, what to buy, and the catalogue behind it. */
export function StockPage() {
  const params = useParams();
  const part = parts.find((p) => p === params.part) ?? 'shelf';
  const stock = useQuery({ queryKey: keys.shelf, queryFn: () => ask(api.GET('/api/stock')), refetchInterval: 15_000 });
  useTitle(`Stock, ${partWord[part].toLowerCase()}`);
  const low = stock.data?.toOrder ?? 0;
  return (
    <div className="grid gap-3 p-3 lg:px-5 lg:pb-6">
      <header className="flex flex-wrap items-end justify-between gap-3">
        <h1 className="text-heading">Stock</h1>
        <Steps
          label="Stock"
          steps={parts.map((p) => ({
            to: `/stock/${p}`,
            label: partWord[p],
            ...(p === 'shelf' && low > 0 ? { note: `${low} to order` } : {}),
            here: p === part,
          }))}
        />
      </header>
      {part === 'buying' && <BuyingSheet />}
      {part === 'orders' && <OrdersSheet />}
      {part === 'catalogue' && <CatalogueSheet />}
      {(part === 'shelf' || part === 'donors') &&
        (stock.data ? (
          part === 'shelf' ? (
            <ShelfSheet stock={stock.data} />
          ) : (
            <DonorsSheet stock={stock.data} />
          )
        ) : stock.isPending ? (
          <Loading what="the shelf" />
        ) : (
          <Trouble error={stock.error} retry={() => void stock.refetch()} />
        ))}
    </div>
  );
}
