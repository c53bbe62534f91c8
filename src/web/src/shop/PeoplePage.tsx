import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, ask, type Role, type StaffCode, type StaffLine } from '../api/client';
import { useWrite } from '../api/useWrite';
import { useAllowed, usePerson } from '../session/session';
import { keys } from '../api/keys';
import { useTitle } from '../shell/title';
import { moment } from '../units/format';
import { Button, FileButton } from '../ui/button';
import { Card } from '../ui/card';
import { Choice } from '../ui/choice';
import { TextField } from '../ui/field';
import { Loading, Notice, Trouble } from '../ui/states';

/** The roles somebody can have, as Core names them. */
const useRoles = (): { value: Role; label: string }[] => {
  const roles = useQuery({
    queryKey: keys.roles,
    queryFn: () => ask(api.GET('/api/people/roles')),
    staleTime: Infinity,
  });
  return (roles.data ?? []).map(({ role, label }) => ({ value: role, label }));
};

/** Who works here: added, given a role and a code, locked out. What they did stays. */
export function PeoplePage() {
  useTitle('People');
  const may = useAllowed('managePeople');
  const people = useQuery({ queryKey: keys.people, queryFn: () => ask(api.GET('/api/people')), enabled: may });
  const [code, setCode] = useState<StaffCode | null>(null);
  if (!may)
    return (
      <div className="p-5">
        <Notice tone="unsure" title="This is not for your role.">
          A lead adds people and gives them roles.
        </Notice>
      </div>
    );
  if (people.isPending) return <Loading what="people" />;
  if (!people.data) return <Trouble error={people.error} retry={() => void people.refetch()} />;
  return (
    <div className="grid max-w-4xl gap-4 p-3 lg:px-5">
      <h1 className="text-heading leading-tight">People</h1>
      {code && (
        <Notice tone="ok" title={`Give ${code.userName} this code: ${code.code}`}>
          <p>
            It is shown this once, and counts once, until {moment(code.until)}. On the sign-in page: “I have a code”.
          </p>
        </Notice>
      )}
      <AddPerson onCode={setCode} />
      <Card label="Everybody" title="Everybody" pad="rows" className="block">
        <ul className="divide-line divide-y">
          {people.data.map((line) => (
            <PersonRow key={line.id} line={line} onCode={setCode} />
          ))}
        </ul>
      </Card>
      <Refused />
    </div>
  );
}

/** Tries to get in that were refused: when, from where, for whom; what was typed is kept nowhere. */
function Refused() {
  const refused = useQuery({ queryKey: keys.refused, queryFn: () => ask(api.GET('/api/people/refused')) });
  if (!refused.data || refused.data.length === 0) return null;
  return (
    <Card label="Refused" title="Refused at the door" pad="rows" className="block">
      <ul className="divide-line divide-y">
        {refused.data.map((one) => (
          <li key={`${one.at}${one.from}`} className="py-1.5 leading-snug">
            <span className="font-strong">{one.what}</span>
            <span className="text-mute block text-note">
              {moment(one.at)}, {one.from}
            </span>
          </li>
        ))}
      </ul>
    </Card>
  );
}

const nobody: { displayName: string; userName: string; initials: string; role: Role } = {
  displayName: '',
  userName: '',
  initials: '',
  role: 'technician',
};

function AddPerson({ onCode }: { onCode: (code: StaffCode) => void }) {
  const roles = useRoles();
  const [draft, setDraft] = useState(nobody);
  const add = useWrite(() => ask(api.POST('/api/people', { body: { id: crypto.randomUUID(), ...draft } })), {
    changes: [keys.people],
    done: (code) => {
      setDraft(nobody);
      onCode(code);
    },
  });
  const errors = add.problem?.errors ?? {};
  const put = (change: Partial<typeof draft>): void => setDraft({ ...draft, ...change });
  return (
    <Card label="Somebody new" title="Somebody new" pad="form" className="grid gap-3">
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          void add.run();
        }}
      >
        <div className="grid gap-3 sm:grid-cols-[2fr_2fr_1fr]">
          <TextField
            label="Name in the book"
            value={draft.displayName}
            required
            problem={errors.displayName?.[0]}
            onChange={({ target: { value } }) => {
              const first = value.trim().split(/\s+/)[0] ?? '';
              put({ displayName: value, userName: first.toLowerCase().replace(/[^a-z0-9.-]/g, '') });
            }}
          />
          <TextField
            label="Name they sign in with"
            value={draft.userName}
            required
            problem={errors.userName?.[0]}
            onChange={(event) => put({ userName: event.target.value })}
          />
          <TextField
            label="Initials"
            value={draft.initials}
            maxLength={4}
            placeholder="from the name"
            problem={errors.initials?.[0]}
            onChange={(event) => put({ initials: event.target.value })}
          />
        </div>
        <div className="flex flex-wrap items-center gap-3">
          <Choice label="Role" value={draft.role} options={roles} onChange={(role) => put({ role })} />
          <Button type="submit" look="hands" disabled={add.busy}>
            Add
          </Button>
        </div>
        {add.problem && Object.keys(errors).length === 0 && (
          <Notice title={add.problem.title}>{add.problem.detail}</Notice>
        )}
      </form>
    </Card>
  );
}

/** Somebody who has left: the book keeps their work under another name. */
function BlankPerson({ line, done }: { line: StaffLine; done: (all: StaffLine[]) => void }) {
  const [again, setAgain] = useState('');
  const blank = useWrite(
    () =>
      ask(api.POST('/api/people/{id}/blank', { params: { path: { id: line.id } }, body: { userName: again.trim() } })),
    { done, changes: [['tray']] },
  );
  return (
    <form
      className="grid items-start gap-3 sm:grid-cols-[1fr_auto]"
      onSubmit={(event) => {
        event.preventDefault();
        void blank.run();
      }}
    >
      <TextField
        label={`To blank them, type ${line.userName}`}
        hint="The book keeps the work, not the name. It does not come back."
        value={again}
        problem={blank.problem?.errors.userName?.[0] ?? blank.problem?.title}
        onChange={(event) => setAgain(event.target.value)}
      />
      <span className="sm:mt-7">
        <Button type="submit" disabled={again.trim() === '' || blank.busy}>
          Blank
        </Button>
      </span>
    </form>
  );
}

function PersonRow({ line, onCode }: { line: StaffLine; onCode: (code: StaffCode) => void }) {
  const me = usePerson();
  const queries = useQueryClient();
  const [open, setOpen] = useState(false);
  const roles = useRoles();
  // Somebody whose role is not known any more may do nothing: the least is offered.
  const role = line.role ?? 'front-desk';
  const [draft, setDraft] = useState({ displayName: line.displayName, initials: line.initials, role });
  const take = (all: StaffLine[]): void => {
    queries.setQueryData(keys.people, all);
    if (line.id === me.id) void queries.invalidateQueries({ queryKey: keys.session });
  };
  const path = { params: { path: { id: line.id } } };
  const change = useWrite(
    (body: { displayName: string; initials: string; role: Role; lockedOut: boolean }) =>
      ask(api.PUT('/api/people/{id}', { ...path, body })),
    { done: take },
  );
  const code = useWrite(() => ask(api.POST('/api/people/{id}/code', path)), { changes: [keys.people], done: onCode });
  const out = useWrite(() => ask(api.DELETE('/api/people/{id}/devices', path)), { done: take });
  const problem = change.problem ?? code.problem ?? out.problem;
  const busy = change.busy || code.busy || out.busy;
  return (
    <li aria-label={line.displayName} className="py-1.5">
      <div className="flex min-h-11 flex-wrap items-center gap-x-4">
        <span className="num bg-paper border-line inline-flex h-9 min-w-11 items-center justify-center rounded-lg border px-1.5 font-bold">
          {line.initials || '–'}
        </span>
        <span className="min-w-0 flex-1 leading-tight">
          <span className={`font-strong ${line.lockedOut ? 'text-mute line-through' : ''}`}>{line.displayName}</span>
          <span className="text-mute block text-note">
            {line.userName}, {line.roleLabel.toLowerCase()}
            {line.lockedOut && ', locked out'}
            {line.codeUntil && `, has a code until ${moment(line.codeUntil)}`}
            {line.devices > 0 && `, signed in on ${line.devices === 1 ? 'one device' : `${line.devices} devices`}`}
          </span>
        </span>
        <Button aria-expanded={open} aria-label={`Change: ${line.displayName}`} onClick={() => setOpen(!open)}>
          Change
        </Button>
      </div>
      {open && (
        <div className="grid gap-3 py-2 sm:pl-15">
          <div className="grid gap-3 sm:grid-cols-[3fr_1fr]">
            <TextField
              label="Name in the book"
              value={draft.displayName}
              problem={problem?.errors.displayName?.[0]}
              onChange={(event) => setDraft({ ...draft, displayName: event.target.value })}
            />
            <TextField
              label="Initials"
              value={draft.initials}
              maxLength={4}
              problem={problem?.errors.initials?.[0]}
              onChange={(event) => setDraft({ ...draft, initials: event.target.value })}
            />
          </div>
          <Choice
            label={`Role: ${line.displayName}`}
            value={draft.role}
            options={roles}
            onChange={(role) => setDraft({ ...draft, role })}
          />
          {problem && (
            <Notice title={problem.errors.role?.[0] ?? problem.errors.lockedOut?.[0] ?? problem.title}>
              {problem.detail}
            </Notice>
          )}
          <div className="flex flex-wrap gap-2">
            <Button
              look="hands"
              disabled={busy}
              onClick={() => void change.run({ ...draft, lockedOut: line.lockedOut })}
            >
              Save
            </Button>
            <Button disabled={busy} onClick={() => void code.run()}>
              Code for a new password
            </Button>
            {line.devices > 0 && (
              <Button disabled={busy} onClick={() => void out.run()}>
                Sign out everywhere
              </Button>
            )}
            <Button
              disabled={busy}
              onClick={() =>
                void change.run({
                  displayName: line.displayName,
                  initials: line.initials,
                  role,
                  lockedOut: !line.lockedOut,
                })
              }
            >
              {line.lockedOut ? 'Let in again' : 'Lock out'}
            </Button>
            <FileButton to={`/api/people/${line.id}/data.json`}>All about them</FileButton>
          </div>
          {line.lockedOut && <BlankPerson line={line} done={take} />}
        </div>
      )}
    </li>
  );
}
