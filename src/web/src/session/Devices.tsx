import { useQuery, useQueryClient } from '@tanstack/react-query';
import { api, ask, type Device } from '../api/client';
import { useWrite } from '../api/useWrite';
import { keys } from '../api/keys';
import { Button } from '../ui/button';
import { Card } from '../ui/card';
import { Notice } from '../ui/states';

/** A moment in words, to the minute. */
export const when = (at: string): string =>
  new Date(at).toLocaleString('en-GB', {
    weekday: 'short',
    day: 'numeric',
    month: 'short',
    hour: '2-digit',
    minute: '2-digit',
  });

/** What a browser calls itself, in words a person knows a device by. */
export function deviceWords(agent: string): string {
  const on = [
    ['iPhone', /iPhone/],
    ['iPad', /iPad/],
    ['Android phone', /Android.*Mobile/],
    ['Android tablet', /Android/],
    ['Windows computer', /Windows/],
    ['Mac', /Macintosh/],
    ['Linux computer', /Linux/],
  ].find(([, pattern]) => (pattern as RegExp).test(agent))?.[0] as string | undefined;
  return on ?? (agent.slice(0, 40) || 'Unknown device');
}

/** Where this person is signed in; whatever is not theirs any more is signed out from here. */
export function Devices() {
  const queries = useQueryClient();
  const devices = useQuery({ queryKey: keys.devices, queryFn: () => ask(api.GET('/api/me/devices')) });
  const take = (now: Device[]): void => void queries.setQueryData(keys.devices, now);
  const one = useWrite(async (id: string) =>
    take(await ask(api.DELETE('/api/me/devices/{id}', { params: { path: { id } } }))),
  );
  const others = useWrite(async () => take(await ask(api.DELETE('/api/me/devices'))));
  const problem = one.problem ?? others.problem;
  const list = devices.data ?? [];
  return (
    <Card label="Where I am signed in" title="Where I am signed in" pad="form" className="grid gap-2">
      <ul className="divide-line divide-y">
        {list.map((device) => (
          <li key={device.id} className="flex min-h-12 flex-wrap items-center justify-between gap-x-4 py-1">
            <span>
              <span className="font-strong">{deviceWords(device.device)}</span>
              <span className="text-mute block text-note">
                {device.here ? 'This device' : `Last seen ${when(device.seenAt)}`}, since {when(device.signedInAt)},
                from {device.address}
              </span>
            </span>
            {!device.here && (
              <Button disabled={one.busy} onClick={() => void one.run(device.id)}>
                Sign out there
              </Button>
            )}
          </li>
        ))}
      </ul>
      {problem && <Notice title={problem.title}>{problem.detail}</Notice>}
      {list.length > 2 && (
        <div>
          <Button disabled={others.busy} onClick={() => void others.run()}>
            Sign out everywhere else
          </Button>
        </div>
      )}
    </Card>
  );
}
