import { useQuery } from '@tanstack/react-query';
import { api, ask, type Tray } from '../../api/client';
import { useOff } from '../../session/session';
import type { TrayWrite } from '../../tray/useTrayWrite';
import { announce } from '../../ui/announce';
import { focusOnward } from '../../ui/focus';
import { Loading, Notice, Trouble } from '../../ui/states';
import { ItemRow } from './ItemRow';
import { OldParts } from './OldParts';
import { useFittingWrite } from './useFittingWrite';
import { keys } from '../../api/keys';

/** Part by part: each kit against the old parts on the bench and the spec sheet. */
export function MatchStep({ tray, writing }: { tray: Tray; writing: TrayWrite }) {
  const work = useFittingWrite(writing);
  const mayWrite = useOff(tray) === undefined;
  const kits = useQuery({
    queryKey: keys.kits(tray.number),
    queryFn: () => ask(api.GET('/api/trays/{number}/kits', { params: { path: { number: tray.number } } })),
    placeholderData: (before) => before,
  });
  const onward = (chosen: boolean): void => {
    if (!chosen) return;
    announce('Chosen.');
    focusOnward();
  };
  return (
    <div className="grid gap-3">
      {work.problem && <Notice title={work.problem.title}>{work.problem.detail}</Notice>}
      <OldParts tray={tray} mayMeasure={mayWrite} />
      {kits.isPending && <Loading what="kits" />}
      {kits.isError && !kits.data && <Trouble error={kits.error} retry={() => void kits.refetch()} />}
      {kits.data && (
        <div>
          <h3 className="text-mute pb-1 text-note font-strong">
            {kits.data.items.length === 0 ? 'No kit is known for this' : 'Kits, best fit first'}
          </h3>
          <ul>
            {kits.data.items.map((offered) => (
              <ItemRow
                key={offered.item.number}
                offered={offered}
                currency={kits.data.currency}
                chosen={tray.fitting?.items.some((item) => item.number === offered.item.number) ?? false}
                mayChoose={mayWrite && !work.busy}
                onChoose={() => void work.chooseKit(offered.item.number).then(onward)}
              />
            ))}
          </ul>
        </div>
      )}
    </div>
  );
}
