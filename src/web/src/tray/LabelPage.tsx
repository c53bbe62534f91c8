import { useQuery } from '@tanstack/react-query';
import { ArrowLeft, Printer } from 'lucide-react';
import { useParams } from 'react-router';
import { api, ask, type ShopView, type Tray } from '../api/client';
import { keys } from '../api/keys';
import { useTray } from '../shell/queries';
import { useTitle } from '../shell/title';
import { trayPath } from '../shell/stations';
import { Button, LinkButton } from '../ui/button';
import { Loading, Trouble } from '../ui/states';

/** The label that goes on a tray and on the machine: as large as the shop's printer takes. */
export function LabelPage() {
  const number = Number(useParams().number);
  useTitle(`Label, tray ${number}`);
  const tray = useTray(number);
  const shop = useQuery({ queryKey: keys.shop, queryFn: () => ask(api.GET('/api/shop')) });
  if (tray.isPending || shop.isPending) return <Loading what="the label" />;
  if (!tray.data) return <Trouble error={tray.error} retry={() => void tray.refetch()} />;
  if (!shop.data) return <Trouble error={shop.error} retry={() => void shop.refetch()} />;
  const { widthMm, heightMm } = shop.data.label;
  return (
    <div className="grid justify-items-start gap-4 p-3 lg:px-5 print:p-0">
      <style>{`@page { size: ${widthMm}mm ${heightMm}mm; margin: 0 }`}</style>
      <div className="flex flex-wrap gap-2 print:hidden">
        <LinkButton to={trayPath(number, 'intake')}>
          <ArrowLeft aria-hidden size={18} /> Tray {number}
        </LinkButton>
        <Button look="hands" autoFocus onClick={() => window.print()}>
          <Printer aria-hidden size={18} /> Print
        </Button>
      </div>
      <Label tray={tray.data} shop={shop.data} />
      <p className="text-mute print:hidden">
        {widthMm} × {heightMm} mm. Another size: page Rules, Desk.
      </p>
    </div>
  );
}

const date = (iso: string): string =>
  new Date(`${iso}T12:00`).toLocaleDateString('en-GB', { weekday: 'short', day: 'numeric', month: 'short' });

function Label({ tray, shop }: { tray: Tray; shop: ShopView }) {
  const { widthMm, heightMm } = shop.label;
  const { facts } = tray;
  // The number takes what it can: it is read across the bench.
  const number = Math.min(heightMm * 0.62, (widthMm * 0.5) / (0.62 * String(tray.number).length));
  const words = Math.max(2.2, Math.min(heightMm * 0.115, widthMm * 0.06));
  return (
    <article
      aria-label={`Label of tray ${tray.number}`}
      className="flex items-center overflow-hidden bg-white text-black outline outline-1 outline-black/30 print:outline-0"
      style={{ width: `${widthMm}mm`, height: `${heightMm}mm`, padding: '1.5mm', gap: '2mm' }}
    >
      <span className="num leading-none font-heavy" style={{ fontSize: `${number}mm` }}>
        {tray.number}
      </span>
      <span className="min-w-0 leading-tight" style={{ fontSize: `${words}mm` }}>
        <span className="line-clamp-2 font-bold">{facts.machineName}</span>
        <span className="line-clamp-1">{facts.ownerName}</span>
        {facts.stampedNumber && <span className="num line-clamp-1">{facts.stampedNumber}</span>}
        {tray.dangers.length > 0 ? (
          <span className="block bg-black px-1 font-heavy text-white">
            {tray.dangers.some(({ danger }) => danger.isFloor) ? 'DO NOT FILL OR RUN' : 'DO NOT RUN'}
          </span>
        ) : (
          <span className="line-clamp-1">Due {date(facts.promisedDay)}</span>
        )}
      </span>
    </article>
  );
}
