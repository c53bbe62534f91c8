import { Card } from '../../ui/card';
import { useQuery } from '@tanstack/react-query';
import { Download } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { v7 as uuidv7 } from 'uuid';
import { api, ask, type BuyingView } from '../../api/client';
import { useWrite } from '../../api/useWrite';
import { useAllowed } from '../../session/session';
import { trayPath } from '../../shell/stations';
import { announce } from '../../ui/announce';
import { Button, LinkButton } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { Loading, Notice, Trouble } from '../../ui/states';
import { money } from '../../units/format';
import { keys } from '../../api/keys';
import { EndOrder } from './OrdersSheet';

type Plan = BuyingView['advice']['plan'];

/** What open trays need, bought together at the least cost, and what that saves. */
export function BuyingSheet() {
  const [refill, setRefill] = useState(false);
  const [placed, setPlaced] = useState<Placed[]>([]);
  const onOrder = useQuery({ queryKey: keys.orders, queryFn: () => ask(api.GET('/api/stock/orders')) });
  // What has been taken back since is not shown as ordered.
  const stands = placed.filter(({ id }) => onOrder.data?.orders.some((one) => one.order.id === id));
  const buying = useQuery({
    queryKey: keys.buying(refill),
    queryFn: () => ask(api.GET('/api/stock/buying', { params: { query: { refill } } })),
    placeholderData: (before) => before,
  });
  if (buying.isPending) return <Loading what="the buying plan" />;
  if (!buying.data) return <Trouble error={buying.error} retry={() => void buying.refetch()} />;
  const { advice, currency, needs, names } = buying.data;
  const { plan } = advice;
  const cost = plan.boughtMoney + plan.shelfMoney + plan.lateMoney;
  const saves = advice.oneByOneMoney - cost;
  return (
    <div className="grid gap-3">
      <Card label="Plan" className="grid gap-3">
        <div className="flex flex-wrap items-center justify-between gap-3">
          <Choice
            label="What to buy"
            value={refill ? 'refill' : 'trays'}
            options={[
              { value: 'trays', label: 'For open trays' },
              { value: 'refill', label: 'And fill the shelf' },
            ]}
            onChange={(next) => setRefill(next === 'refill')}
          />
          {!plan.proven && <Notice tone="unsure" title="A cheaper plan may exist: the time to look for it ran out." />}
        </div>
        {needs === 0 ? (
          <p>
            No open tray has anything to order. What is chosen at Kit and is not on the shelf turns up here
            {refill ? '.' : '; so does the shelf, when it is to be filled.'}
          </p>
        ) : (
          <dl className="flex flex-wrap gap-x-10 gap-y-2">
            <Figure
              label={`${needs} ${needs === 1 ? 'need' : 'needs'}, ${plan.orders.length} ${plan.orders.length === 1 ? 'order' : 'orders'}`}
              value={money(plan.boughtMoney, currency)}
            />
            {plan.shelfMoney > 0 && <Figure label="taken off the shelf" value={money(plan.shelfMoney, currency)} />}
            {plan.lateMoney > 0 && (
              <Figure label="what being late would cost" value={money(plan.lateMoney, currency)} />
            )}
            {saves > 0 ? (
              <Figure
                label={`saved against ordering one by one, ${advice.oneByOneOrders} ${advice.oneByOneOrders === 1 ? 'order' : 'orders'}`}
                value={money(saves, currency)}
                good
              />
            ) : (
              <p className="text-mute self-end">Ordering one by one would cost the same.</p>
            )}
          </dl>
        )}
      </Card>
      {stands.map((one) => (
        <JustOrdered key={one.id} placed={one} names={names} />
      ))}
      {plan.orders.map((order) => (
        <Order
          key={order.supplier}
          order={order}
          view={buying.data}
          refill={refill}
          onOrdered={(one) => {
            setPlaced([...placed, one]);
            announce(`Ordered from ${one.order.supplier}.`);
          }}
        />
      ))}
      {plan.notMet.length > 0 && (
        <Notice tone="unsure" title="Nobody sells this:">
          {plan.notMet.map((need) => `${need.label}${need.tray > 0 ? ` for tray ${need.tray}` : ''}`).join(', ')}
        </Notice>
      )}
      {needs > 0 && <Shelf plan={plan} view={buying.data} />}
    </div>
  );
}

function Figure({ label, value, good = false }: { label: string; value: string; good?: boolean }) {
  return (
    <div className="flex flex-col-reverse">
      <dt className="text-mute leading-snug">{label}</dt>
      <dd className={`num text-figure leading-tight font-bold ${good ? 'text-ok' : ''}`}>{value}</dd>
    </div>
  );
}

/** An order that has just been placed. */
interface Placed {
  id: string;
  order: Plan['orders'][number];
}

/** What was ordered just now, from whom, with the way back and the list once more. */
function JustOrdered({ placed, names }: { placed: Placed; names: BuyingView['names'] }) {
  const { id, order } = placed;
  return (
    <Card label={`Ordered from ${order.supplier}`} className="bg-ok-soft! grid gap-2">
      <div className="flex flex-wrap items-center justify-between gap-3">
        <h2 className="text-title">Ordered from {order.supplier}</h2>
        <span className="flex flex-wrap items-start gap-2">
          <LinkButton to="/stock/orders">All that is on order</LinkButton>
          <EndOrder id={id} supplier={order.supplier} undoOnly />
        </span>
      </div>
      <ul>
        {order.lines.map((line) => (
          <li key={line.item}>
            <span className="num font-bold">
              {line.pieces} × {line.item}
            </span>{' '}
            {names[line.item]}
          </li>
        ))}
      </ul>
    </Card>
  );
}

/** What a line of an order is for, tray by tray, and what is late. */
function For({ trays, view }: { trays: readonly number[]; view: BuyingView }) {
  const late = view.advice.plan.daysLate;
  return (
    <>
      {trays.map((tray) => (
        <span key={tray} className="block">
          {tray === 0 ? (
            'the shelf'
          ) : (
            <Link className="underline underline-offset-4" to={trayPath(tray, 'kits')}>
              tray {tray}
            </Link>
          )}
          {view.notes[tray] && <span className="text-unsure block">Its note: {view.notes[tray]}</span>}
          {late[tray] ? (
            <span className="text-bad font-strong">
              {' '}
              {late[tray]} {late[tray] === 1 ? 'day' : 'days'} late
            </span>
          ) : (
            ''
          )}
        </span>
      ))}
    </>
  );
}

function Order({
  order,
  view,
  refill,
  onOrdered,
}: {
  order: Plan['orders'][number];
  view: BuyingView;
  refill: boolean;
  onOrdered: (placed: Placed) => void;
}) {
  const mayOrder = useAllowed('workAtTheBench');
  const [id, setId] = useState(() => uuidv7());
  const { currency, names } = view;
  const trays = [...new Set(order.lines.flatMap((line) => line.trays))].filter((tray) => tray > 0);
  const { run, busy, problem } = useWrite(
    () =>
      ask(
        api.POST('/api/stock/orders', {
          body: {
            id,
            supplier: order.supplier,
            lines: Object.fromEntries(order.lines.map((line) => [line.item, line.pieces])),
            for: trays.map((tray) => {
              const mine = order.lines.filter((line) => line.trays.includes(tray));
              return {
                tray,
                items: mine.map((line) => line.item),
                days: Math.max(...mine.map((line) => line.leadDays)),
              };
            }),
          },
        }),
      ),
    {
      changes: [keys.stock, keys.bench, ['tray']],
      done: () => {
        onOrdered({ id, order });
        setId(uuidv7());
      },
    },
  );
  const query = new URLSearchParams({ supplier: order.supplier, refill: String(refill) });
  return (
    <Card label={order.supplier} className="grid gap-2">
      <div className="flex flex-wrap items-center justify-between gap-3">
        <h2 className="text-title">{order.supplier}</h2>
        <div className="flex flex-wrap items-center gap-2">
          <a
            href={`/api/stock/buying/order-list?${query}`}
            download
            className="inline-flex min-h-11 items-center gap-2 px-3 underline underline-offset-4"
          >
            <Download aria-hidden size={18} /> Order list (CSV)
          </a>
          {mayOrder && (
            <Button disabled={busy} onClick={() => void run()}>
              It is ordered
            </Button>
          )}
        </div>
      </div>
      {problem && <Notice title={problem.title}>{problem.detail}</Notice>}
      <table className="w-full text-left">
        <thead>
          <tr className="text-mute text-note">
            <th className="py-1 pr-3 font-strong">Item</th>
            <th className="py-1 pr-3 text-right font-strong">Pieces</th>
            <th className="py-1 pr-3 font-strong max-sm:hidden">For</th>
            <th className="py-1 pr-3 text-right font-strong">Comes in</th>
            <th className="py-1 text-right font-strong">Price</th>
          </tr>
        </thead>
        <tbody>
          {order.lines.map((line) => (
            <tr key={line.item} className="border-line border-t align-top leading-snug">
              <th scope="row" className="py-2 pr-3 font-normal">
                <span className="num font-bold">{line.item}</span> {names[line.item]}
                {/* On a phone the columns are too narrow for it. */}
                <div className="sm:hidden">
                  <For trays={line.trays} view={view} />
                </div>
              </th>
              <td className="num py-2 pr-3 text-right">
                {line.pieces}
                {line.pieces !== line.packs && (
                  <span className="text-mute block">
                    {line.packs} {line.packs === 1 ? 'pack' : 'packs'}
                  </span>
                )}
              </td>
              <td className="py-2 pr-3 max-sm:hidden">
                <For trays={line.trays} view={view} />
              </td>
              <td className="py-2 pr-3 text-right whitespace-nowrap">{line.leadDays} days</td>
              <td className="num py-2 text-right">{money(line.money, currency)}</td>
            </tr>
          ))}
          <tr className="border-line border-t">
            <th scope="row" className="py-1 font-normal">
              Freight
            </th>
            <td colSpan={4} className="num py-1 text-right">
              {money(order.freightMoney, currency)}
            </td>
          </tr>
          <tr>
            <th scope="row" className="py-1 font-bold">
              In all
            </th>
            <td colSpan={4} className="num py-1 text-right text-part font-bold">
              {money(order.money, currency)}
            </td>
          </tr>
        </tbody>
      </table>
    </Card>
  );
}

/** What the shelf does for the trays on the books, and what lies idle. */
function Shelf({ plan, view }: { plan: Plan; view: BuyingView }) {
  const fromShelf = plan.met.filter((met) => met.supplier === null);
  const { usefulShelf, idleShelf } = view.advice;
  const useful = Object.entries(usefulShelf);
  return (
    <Card label="From the shelf" className="grid gap-2">
      <h2 className="text-part">The shelf and these trays</h2>
      {fromShelf.length > 0 && (
        <ul>
          {fromShelf.map((met, place) => (
            <li key={place}>
              <Link className="underline underline-offset-4" to={trayPath(met.need.tray, 'kits')}>
                Tray {met.need.tray}
              </Link>
              : {met.need.label}, out of {met.item}
              {met.part !== null && ' opened for it'}: there or on its way
            </li>
          ))}
        </ul>
      )}
      <p className="leading-snug">
        {useful.length === 0
          ? 'Nothing on the shelf could meet one of these needs.'
          : `Could meet a need: ${useful.map(([item, trays]) => `${item} (${trays.map((t) => (t === 0 ? 'shelf' : `tray ${t}`)).join(', ')})`).join(', ')}.`}
      </p>
      {idleShelf.length > 0 && (
        <p className="text-mute leading-snug">No use for these trays: {idleShelf.join(', ')}.</p>
      )}
    </Card>
  );
}
