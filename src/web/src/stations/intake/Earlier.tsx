import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { api, ask } from '../../api/client';
import { trayPath } from '../../shell/stations';
import { moment } from '../../units/format';
import { keys } from '../../api/keys';

/** Earlier trays of the same machine, with what was wrong then. */
export function Earlier({ owner, machine, except }: { owner: string; machine: string; except?: number }) {
  const earlier = useQuery({
    queryKey: keys.earlier(owner, machine),
    queryFn: () => ask(api.GET('/api/earlier', { params: { query: { owner, machine } } })),
    enabled: owner !== '' && machine !== '',
  });
  const trays = (earlier.data ?? []).filter((tray) => tray.number !== except);
  if (trays.length === 0) return null;
  return (
    <section aria-label="Here before" className="bg-steel rounded-lg px-4 py-2">
      <h3 className="font-strong">Here before</h3>
      <ul>
        {trays.map((tray) => (
          <li key={tray.number} className="py-0.5">
            <Link className="underline underline-offset-3" to={trayPath(tray.number, 'faults')}>
              Tray {tray.number}
            </Link>
            , {moment(tray.checkedInAt)}: {tray.complaint}.{' '}
            <span className="font-strong">
              {tray.faults.length > 0 ? `It was: ${tray.faults.join('; ')}.` : 'No cause was noted.'}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
