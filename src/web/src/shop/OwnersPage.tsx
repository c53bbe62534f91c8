import { keepPreviousData, useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { useDeferredValue, useState } from 'react';
import { Link } from 'react-router';
import { api, ask, type OwnerLine } from '../api/client';
import { useWrite } from '../api/useWrite';
import { useKept } from '../outbox/drafts';
import { useAllowed, usePerson } from '../session/session';
import { keys } from '../api/keys';
import { useTitle } from '../shell/title';
import { Button, FileButton } from '../ui/button';
import { Card } from '../ui/card';
import { SelectField, TextField } from '../ui/field';
import { Loading, Notice, Trouble } from '../ui/states';

const findOwners = (text: string, after?: string) =>
  ask(api.GET('/api/owners/all', { params: { query: { text, ...(after ? { after } : {}) } } }));

/** Whose machines come in: found, reached, spelled right, made one, blanked. */
export function OwnersPage() {
  useTitle('Owners');
  const [find, setFind] = useState('');
  const [open, setOpen] = useState<string | null>(null);
  const wanted = useDeferredValue(find.trim());
  const owners = useInfiniteQuery({
    queryKey: keys.findOwners(wanted),
    queryFn: ({ pageParam }) => findOwners(wanted, pageParam),
    initialPageParam: undefined as string | undefined,
    getNextPageParam: (last) => (last.more ? last.owners.at(-1)?.id : undefined),
    placeholderData: keepPreviousData,
  });
  if (owners.isPending) return <Loading what="the owners" />;
  if (!owners.data) return <Trouble error={owners.error} retry={() => void owners.refetch()} />;
  const found = owners.data.pages.flatMap((page) => page.owners);
  return (
    <div className="grid max-w-5xl gap-4 p-3 lg:px-5">
      <h1 className="text-heading leading-tight">Owners</h1>
      <Card label="Owners" pad="rows" className="grid gap-2">
        <TextField
          label="Find"
          placeholder="who, where they are reached, machine or tray"
          value={find}
          onChange={(event) => setFind(event.target.value)}
        />
        <p className="text-mute" role="status">
          {found.length > 0
            ? `${found.length === 1 ? '1 owner' : `${found.length} owners`}${owners.hasNextPage ? ', and more' : ''}`
            : wanted === ''
              ? 'There is no owner yet: the first comes with the first check-in.'
              : 'Nobody by that.'}
        </p>
        <ul className="divide-line divide-y">
          {found.map((owner) => (
            <OwnerRow
              key={owner.id}
              owner={owner}
              open={open === owner.id}
              setOpen={(wide) => setOpen(wide ? owner.id : null)}
            />
          ))}
        </ul>
        {owners.hasNextPage && (
          <span>
            <Button disabled={owners.isFetchingNextPage} onClick={() => void owners.fetchNextPage()}>
              Show more
            </Button>
          </span>
        )}
      </Card>
    </div>
  );
}

function OwnerRow({ owner, open, setOpen }: { owner: OwnerLine; open: boolean; setOpen: (open: boolean) => void }) {
  const mayChange = useAllowed('changeTrays');
  return (
    <li aria-label={owner.name} className="py-1.5">
      <div className="flex min-h-11 flex-wrap items-center gap-x-4">
        <span className="min-w-0 flex-1 leading-tight">
          <span className="font-strong">{owner.name}</span>
          <span className="text-mute block text-note">{owner.contact || 'not said how to reach them'}</span>
        </span>
        <span className="flex flex-wrap gap-x-3 max-sm:order-last max-sm:basis-full">
          {owner.trays.slice(0, 6).map((tray) => (
            <Link
              key={tray.number}
              to={`/tray/${tray.number}`}
              aria-label={`Tray ${tray.number}: ${tray.machineName}`}
              title={tray.machineName}
              className={`num inline-flex min-h-11 items-center font-bold underline underline-offset-4 ${tray.handedBack ? 'text-mute' : ''}`}
            >
              {tray.number}
            </Link>
          ))}
        </span>
        {mayChange && (
          <Button aria-label={`Change: ${owner.name}`} aria-expanded={open} onClick={() => setOpen(!open)}>
            Change
          </Button>
        )}
      </div>
      {open && <OwnerForm owner={owner} done={() => setOpen(false)} />}
    </li>
  );
}

function OwnerForm({ owner, done }: { owner: OwnerLine; done: () => void }) {
  const person = usePerson();
  const isLead = useAllowed('manageShop');
  const was = { name: owner.name, contact: owner.contact };
  const [draft, keep, clear] = useKept(`${person.id}:owner:${owner.id}`, was);
  const [into, setInto] = useState('');
  const [again, setAgain] = useState('');
  const take = (): void => {
    clear();
    done();
  };
  const path = { params: { path: { id: owner.id } } };
  const after = { done: take, changes: [keys.bench, ['tray'], keys.owners] };
  const change = useWrite(() => ask(api.PUT('/api/owners/{id}', { ...path, body: { now: draft, was } })), after);
  const merge = useWrite(
    (other: string) => ask(api.POST('/api/owners/{id}/merge', { ...path, body: { into: other } })),
    after,
  );
  const blank = useWrite(
    () => ask(api.POST('/api/owners/{id}/blank', { ...path, body: { name: again, contact: '' } })),
    after,
  );
  const { machines } = owner;
  const [pair, setPair] = useState({ from: '', into: '' });
  const one = useWrite(() => ask(api.POST('/api/owners/{id}/machines', { ...path, body: pair })), after);
  const named = useDeferredValue(into.trim());
  const others = useQuery({
    queryKey: keys.likeOwners(named),
    queryFn: () => findOwners(named),
    enabled: named !== '',
    placeholderData: keepPreviousData,
  }).data?.owners.filter((one) => one.id !== owner.id);
  const other = others?.find((one) => one.name === into.trim());
  const errors = change.problem?.errors ?? {};
  return (
    <div className="grid gap-4 py-2">
      <form
        className="grid items-start gap-3 sm:grid-cols-[1fr_1fr_auto]"
        onSubmit={(event) => {
          event.preventDefault();
          void change.run();
        }}
      >
        <TextField
          label="Owner"
          value={draft.name}
          problem={errors.name?.[0]}
          onChange={(event) => keep({ ...draft, name: event.target.value })}
        />
        <TextField
          label="How to reach them"
          value={draft.contact}
          problem={errors.contact?.[0]}
          onChange={(event) => keep({ ...draft, contact: event.target.value })}
        />
        <span className="sm:mt-7">
          <Button type="submit" look="hands" disabled={change.busy}>
            Save
          </Button>
        </span>
      </form>
      {change.problem && !errors.name && !errors.contact && (
        <Notice title={change.problem.title}>{change.problem.detail}</Notice>
      )}
      {isLead && (
        <>
          <form
            className="grid items-start gap-3 sm:grid-cols-[1fr_auto]"
            onSubmit={(event) => {
              event.preventDefault();
              if (other) void merge.run(other.id);
            }}
          >
            <TextField
              label="The same as"
              hint={`Their machines and trays go to that owner; ${owner.name} is gone.`}
              list={`owners-${owner.id}`}
              value={into}
              problem={merge.problem?.title}
              onChange={(event) => setInto(event.target.value)}
            />
            <datalist id={`owners-${owner.id}`}>
              {others?.map((one) => (
                <option key={one.id} value={one.name} />
              ))}
            </datalist>
            <span className="sm:mt-7">
              <Button
                type="submit"
                disabled={merge.busy}
                why={other ? undefined : 'Choose an owner from the list first.'}
              >
                {other ? `Make one with ${other.name}` : 'Make them one'}
              </Button>
            </span>
          </form>
          {machines.length > 1 && (
            <form
              aria-label="Two machines that are one"
              className="grid items-start gap-3 sm:grid-cols-[1fr_1fr_auto]"
              onSubmit={(event) => {
                event.preventDefault();
                void one.run();
              }}
            >
              {(['from', 'into'] as const).map((side) => (
                <SelectField
                  key={side}
                  label={side === 'from' ? 'This machine' : 'is the same as'}
                  value={pair[side]}
                  problem={side === 'into' ? (one.problem?.errors.into?.[0] ?? one.problem?.title) : undefined}
                  onChange={(event) => setPair({ ...pair, [side]: event.target.value })}
                >
                  <option value="">Choose</option>
                  {machines.map((name) => (
                    <option key={name}>{name}</option>
                  ))}
                </SelectField>
              ))}
              <span className="sm:mt-7">
                <Button
                  type="submit"
                  disabled={one.busy}
                  why={pair.from && pair.into && pair.from !== pair.into ? undefined : 'Choose two machines first.'}
                >
                  Make them one
                </Button>
              </span>
            </form>
          )}
          <form
            className="grid items-start gap-3 sm:grid-cols-[1fr_auto]"
            onSubmit={(event) => {
              event.preventDefault();
              void blank.run();
            }}
          >
            <TextField
              label={`To blank them, type ${owner.name}`}
              hint="The book keeps the work, not the name. Photos stay: look through them first. It does not come back."
              value={again}
              problem={blank.problem?.errors.name?.[0] ?? blank.problem?.title}
              onChange={(event) => setAgain(event.target.value)}
            />
            <span className="flex flex-wrap gap-2 sm:mt-7">
              <Button type="submit" disabled={again.trim() === '' || blank.busy}>
                Blank
              </Button>
              <FileButton to={`/api/owners/${owner.id}/data.json`}>All about them</FileButton>
            </span>
          </form>
        </>
      )}
    </div>
  );
}
