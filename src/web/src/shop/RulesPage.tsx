import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, ask, type Rule } from '../api/client';
import { useWrite } from '../api/useWrite';
import { useKept } from '../outbox/drafts';
import { useAllowed, usePerson, useUnits } from '../session/session';
import { keys } from '../api/keys';
import { useTitle } from '../shell/title';
import { figure, moment, sign } from '../units/format';
import { Button, FileButton } from '../ui/button';
import { Card } from '../ui/card';
import { SelectField, TextField } from '../ui/field';
import { Loading, Notice, Trouble } from '../ui/states';
import { ShopCards } from './ShopCards';

/** Every number the shop goes by: what it does, where it is from, who changed it and why. */
export function RulesPage() {
  useTitle('Rules');
  const mayLeave = useAllowed('manageShop');
  const rules = useQuery({ queryKey: keys.rules, queryFn: () => ask(api.GET('/api/shop/rules')) });
  if (rules.isPending) return <Loading what="the rules" />;
  if (!rules.data) return <Trouble error={rules.error} retry={() => void rules.refetch()} />;
  const groups = [...new Set(rules.data.map((rule) => rule.group))];
  return (
    <div className="grid max-w-5xl gap-4 p-3 lg:px-5">
      <header>
        <h1 className="text-heading leading-tight">Rules of the shop</h1>
        <p className="text-mute">
          What holds where a spec sheet says nothing. A change is for what is measured from now on: trays with readings
          keep the rules they were judged by.
        </p>
      </header>
      <ShopCards />
      {groups.map((group) => (
        <Card key={group} label={group} title={group} pad="rows" className="block">
          <ul className="divide-line divide-y">
            {rules.data
              .filter((rule) => rule.group === group)
              .map((rule) => (
                <RuleRow key={rule.key} rule={rule} />
              ))}
          </ul>
        </Card>
      ))}
      {mayLeave && (
        <Card label="Leave and move" title="Leave and move" className="grid gap-2">
          <p className="text-mute">
            Everything of the shop in open formats: rows as JSON, photos as JPEG. It holds people’s names, but no
            passwords. A shop that has nobody in it yet takes it in on its first page.
          </p>
          <div>
            <FileButton to="/api/shop/archive.zip">Everything as one file</FileButton>
          </div>
        </Card>
      )}
    </div>
  );
}

function RuleRow({ rule }: { rule: Rule }) {
  const units = useUnits();
  const person = usePerson();
  const mayChange = useAllowed('manageShop');
  const queries = useQueryClient();
  const [open, setOpen] = useState(false);
  // Counts and amounts keep the digits they were typed with.
  const written = (value: number): string =>
    rule.choices[value] ?? (rule.counts ? String(value) : figure(rule.dimension, value, units));
  const shown = written(rule.value);
  const [draft, keep, clear] = useKept(`${person.id}:rule:${rule.key}`, { value: shown, why: '' });
  const unit = rule.counts || sign(rule.dimension, units);
  const change = useWrite(
    () =>
      ask(
        api.PUT('/api/shop/rules/{key}', {
          params: { path: { key: rule.key } },
          body: { typed: draft.value, units, was: rule.value, why: draft.why },
        }),
      ),
    {
      done: (all) => {
        queries.setQueryData(keys.rules, all);
        clear();
        setOpen(false);
      },
      changes: [keys.bench, ['tray']],
    },
  );
  const errors = change.problem?.errors ?? {};
  return (
    <li aria-label={rule.label} className="py-1.5">
      <div className="flex min-h-12 flex-wrap items-center gap-x-4">
        <span className="min-w-0 flex-1 leading-tight">
          <span className="font-strong">{rule.label}</span>
          <span className="text-mute block text-note">
            {rule.what} {rule.source.charAt(0).toUpperCase() + rule.source.slice(1)}.
          </span>
          {rule.changed && (
            <span className="block text-note">
              {rule.changed.by}, {moment(rule.changed.at)}: {rule.changed.what}. {rule.changed.why}
            </span>
          )}
        </span>
        <span className="num text-part font-bold">
          {shown} {unit}
        </span>
        {mayChange && (
          <Button aria-expanded={open} aria-label={`Change: ${rule.label}`} onClick={() => setOpen(!open)}>
            Change
          </Button>
        )}
      </div>
      {open && (
        <form
          className="grid items-start gap-3 py-2 sm:grid-cols-[10rem_1fr_auto]"
          onSubmit={(event) => {
            event.preventDefault();
            void change.run();
          }}
        >
          {rule.choices.length > 0 ? (
            <SelectField
              label="Value"
              value={draft.value}
              problem={errors.typed?.[0]}
              onChange={(event) => keep({ ...draft, value: event.target.value })}
            >
              {rule.choices.map((choice) => (
                <option key={choice}>{choice}</option>
              ))}
            </SelectField>
          ) : (
            <TextField
              label={`Value${unit ? `, ${unit}` : ''}`}
              className="num"
              inputMode="decimal"
              value={draft.value}
              problem={errors.typed?.[0]}
              onChange={(event) => keep({ ...draft, value: event.target.value })}
            />
          )}
          <TextField
            label="Why"
            value={draft.why}
            problem={errors.why?.[0]}
            onChange={(event) => keep({ ...draft, why: event.target.value })}
          />
          <span className="flex flex-wrap gap-2 sm:mt-7">
            <Button type="submit" look="hands" disabled={change.busy}>
              Change it
            </Button>
            {rule.value !== rule.usual && (
              <Button
                onClick={() => keep({ ...draft, value: written(rule.usual) })}
                aria-label={`The usual: ${rule.label}`}
              >
                The usual: {written(rule.usual)}
              </Button>
            )}
          </span>
          {change.problem && !errors.typed && !errors.why && (
            <div className="sm:col-span-3">
              <Notice title={change.problem.title}>{change.problem.detail}</Notice>
            </div>
          )}
        </form>
      )}
    </li>
  );
}
