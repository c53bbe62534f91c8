import { CloudOff } from 'lucide-react';
import { useSyncExternalStore } from 'react';
import { seen } from '../api/client';
import { moment } from '../units/format';

/** While the server is away: from when what is shown is, and that work goes on. */
export function ServerAway() {
  const since = useSyncExternalStore(seen.subscribe, seen.since);
  if (since === null) return null;
  return (
    <p
      role="status"
      className="bg-unsure-soft text-unsure flex items-center gap-2 px-4 py-1.5 font-strong print:hidden"
    >
      <CloudOff aria-hidden size={20} />
      The server does not answer. You see what was seen {moment(since)}; what you enter is kept here and sent later.
      Buying, stock and searching the catalogue need the server.
    </p>
  );
}
