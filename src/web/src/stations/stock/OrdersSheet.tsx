import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { v7 as uuidv7 } from 'uuid';
import { api, ask, type Orders } from '../../api/client';
import { useWrite } from '../../api/useWrite';
import { useAllowed } from '../../session/session';
import { keys } from '../../api/keys';
import { announce } from '../../ui/announce';
import { Button, LinkButton } from '../../ui/button';
import { Card } from '../../ui/card';
import { Loading, Notice, Trouble } from '../../ui/states';
import { day, localToday, moment } from '../../units/format';
import { trayPath } from '../../shell/stations';

/** What is on order, from whom, for which trays; booked in whole, or taken back. */
export function OrdersSheet() {
  const orders = useQuery({ queryKey: keys.orders, queryFn: () => ask(api.GET('/api/stock/orders')) });
  if (orders.isPending) return <Loading what="what is on order" />;
  if (!orders.data) return <Trouble error={orders.error} retry={() => void orders.refetch()} />;
  if (orders.data.orders.length === 0)
    return (
      <Card label="On order" className="grid justify-items-start gap-3">
        <p>Nothing is on order.</p>
        <LinkButton to="/stock/buying" look="hands">
          What is to be ordered
        </LinkButton>
      </Card>
    );
  return (
    <div className="grid gap-3">
      {orders.data.orders.map((one) => (
        <OneOrder key={one.order.id} one={one} names={orders.data.names} />
      ))}
    </div>
  );
}

function OneOrder({ one, names }: { one: Orders['orders'][number]; names: Orders['names'] }) {
  const mayOrder = useAllowed('workAtTheBench');
  const { order, trays } = one;
  return (
    <Card label={`Order from ${order.supplier}`} className="grid gap-2">
      <div className="flex flex-wrap items-center justify-between gap-3">
        <div>
          <h2 className="text-title">{order.supplier}</h2>
          <p className="text-mute">
            Ordered by {order.by}, {moment(order.at)}
            {one.due && `, due ${day(one.due, localToday())}`}
          </p>
        </div>
        {mayOrder && <EndOrder id={order.id} supplier={order.supplier} />}
      </div>
      <table className="w-full text-left">
        <thead>
          <tr className="text-mute text-note">
            <th className="py-1 pr-3 font-strong">Item</th>
            <th className="py-1 pr-3 text-right font-strong">Ordered</th>
            <th className="py-1 text-right font-strong">Still to come</th>
          </tr>
        </thead>
        <tbody>
          {order.lines.map((line) => (
            <tr key={line.item} className="border-line border-t leading-snug">
              <th scope="row" className="py-2 pr-3 font-normal">
                <span className="num font-bold">{line.item}</span> {names[line.item]}
              </th>
              <td className="num py-2 pr-3 text-right">{line.ordered}</td>
              <td className="num py-2 text-right font-bold">{line.open}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {trays.length > 0 && (
        <p>
          {trays.length === 1 ? 'A tray waits for it: ' : 'Trays wait for it: '}
          {trays.map((tray, place) => (
            <span key={tray}>
              {place > 0 && ', '}
              <Link className="underline underline-offset-4" to={trayPath(tray, 'kits')}>
                {tray}
              </Link>
            </span>
          ))}
        </p>
      )}
    </Card>
  );
}

/** All of it came, or it is taken back. Each press has an id of its own, so that a second one does nothing. */
export function EndOrder({ id, supplier, undoOnly = false }: { id: string; supplier: string; undoOnly?: boolean }) {
  const queries = useQueryClient();
  const [act] = useState(() => ({ came: uuidv7(), undo: uuidv7() }));
  const path = { params: { path: { order: id } } };
  const after = (word: string) => ({
    changes: [keys.stock, keys.bench, ['tray']],
    done: (now: Orders) => {
      queries.setQueryData(keys.orders, now);
      announce(word);
    },
  });
  const came = useWrite(
    () => ask(api.POST('/api/stock/orders/{order}/came', { ...path, body: { id: act.came } })),
    after(`All of it from ${supplier} is on the shelf.`),
  );
  const undo = useWrite(
    () => ask(api.POST('/api/stock/orders/{order}/undo', { ...path, body: { id: act.undo } })),
    after(`The order from ${supplier} is taken back.`),
  );
  const problem = came.problem ?? undo.problem;
  const busy = came.busy || undo.busy;
  return (
    <div className="grid justify-items-end gap-2">
      <span className="flex flex-wrap gap-2">
        <Button disabled={busy} aria-label={`Take the order back: ${supplier}`} onClick={() => void undo.run()}>
          Take the order back
        </Button>
        {!undoOnly && (
          <Button
            look="hands"
            disabled={busy}
            aria-label={`All of it came: ${supplier}`}
            onClick={() => void came.run()}
          >
            All of it came
          </Button>
        )}
      </span>
      {problem && <Notice title={problem.title}>{problem.detail}</Notice>}
    </div>
  );
}
