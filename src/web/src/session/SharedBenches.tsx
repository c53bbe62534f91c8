import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, ask } from '../api/client';
import { useWrite } from '../api/useWrite';
import { keys } from '../api/keys';
import { Button } from '../ui/button';
import { Card } from '../ui/card';
import { TextField } from '../ui/field';
import { Notice } from '../ui/states';
import { when } from './Devices';

/** Devices a lead trusts: on them people sign in by PIN. */
export function SharedBenches() {
  const queries = useQueryClient();
  const [label, setLabel] = useState('');
  const benches = useQuery({ queryKey: keys.sharedBenches, queryFn: () => ask(api.GET('/api/shared-benches')) });
  const trust = useWrite(
    async () =>
      queries.setQueryData(keys.sharedBenches, await ask(api.POST('/api/shared-benches', { body: { label } }))),
    { done: () => setLabel('') },
  );
  const end = useWrite(async (id: string) =>
    queries.setQueryData(
      keys.sharedBenches,
      await ask(api.DELETE('/api/shared-benches/{id}', { params: { path: { id } } })),
    ),
  );
  const here = benches.data?.some((bench) => bench.here);
  const problem = trust.problem ?? end.problem;
  return (
    <Card label="Shared benches" title="Shared benches" pad="form" className="grid gap-3">
      <p className="text-mute">On these devices people sign in by PIN. Trust only what stays in the shop.</p>
      <ul className="divide-line divide-y">
        {benches.data?.map((bench) => (
          <li key={bench.id} className="flex min-h-12 flex-wrap items-center gap-x-4 py-1">
            <span className="min-w-0 flex-1 leading-tight">
              <span className="font-strong">{bench.label}</span>
              {bench.here && <span className="ml-2 font-bold">this one</span>}
              <span className="text-mute block text-note">
                {bench.trustedBy}, {when(bench.trustedAt)}
              </span>
            </span>
            <Button
              disabled={end.busy}
              aria-label={`No more PINs: ${bench.label}`}
              onClick={() => void end.run(bench.id)}
            >
              No more PINs
            </Button>
          </li>
        ))}
      </ul>
      {!here && (
        <form
          className="grid items-start gap-3 sm:grid-cols-[1fr_auto]"
          onSubmit={(event) => {
            event.preventDefault();
            void trust.run();
          }}
        >
          <TextField
            label="What this device is called"
            placeholder="Tablet by the bath"
            value={label}
            problem={problem?.errors.label?.[0]}
            onChange={(event) => setLabel(event.target.value)}
          />
          <span className="sm:mt-7">
            <Button type="submit" disabled={trust.busy}>
              Trust this device
            </Button>
          </span>
        </form>
      )}
      {problem && !problem.errors.label && <Notice title={problem.title}>{problem.detail}</Notice>}
    </Card>
  );
}
