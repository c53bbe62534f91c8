import type { Tray } from '../../api/client';
import { useBaths, useCleaning } from '../../shell/queries';
import { Loading, Trouble } from '../../ui/states';
import { BathPanel } from './BathPanel';
import { useNow } from './useNow';

/** The shop's baths, with this tray's way in. */
export function BathStep({ tray, mayRecord }: { tray: Tray; mayRecord: boolean }) {
  const baths = useBaths();
  const offers = useCleaning(tray.number).data?.plan.offers;
  const now = useNow(baths.data?.now);
  if (baths.isPending) return <Loading what="the baths" />;
  if (!baths.data) return <Trouble error={baths.error} retry={() => void baths.refetch()} />;
  return (
    <div className="grid items-start gap-3 2xl:grid-cols-2">
      {baths.data.baths.map((view) => (
        <BathPanel
          key={view.state.bath.key}
          view={view}
          now={now}
          mayRecord={mayRecord}
          tray={tray.number}
          staysOut={offers?.find((offer) => offer.recipe.key === view.recipe.key)?.staysOut ?? []}
        />
      ))}
    </div>
  );
}
