import { useAllowed } from '../../session/session';
import { useBaths } from '../../shell/queries';
import { Loading, Trouble } from '../../ui/states';
import { BathPanel } from './BathPanel';
import { useNow } from './useNow';

/** The shop's baths: what every tray shares. */
export function BathsPage() {
  const baths = useBaths();
  const now = useNow(baths.data?.now);
  const mayRecord = useAllowed('workAtTheBench');
  if (baths.isPending) return <Loading what="the baths" />;
  if (!baths.data) return <Trouble error={baths.error} retry={() => void baths.refetch()} />;
  return (
    <div className="p-3 lg:px-5 lg:pb-5">
      <h1 className="mb-3 text-heading">Baths</h1>
      <div className="grid items-start gap-3 xl:grid-cols-2 [&>section]:bg-sheet">
        {baths.data.baths.map((view) => (
          <BathPanel key={view.state.bath.key} view={view} now={now} mayRecord={mayRecord} />
        ))}
      </div>
    </div>
  );
}
