import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Plus, X } from 'lucide-react';
import { type ReactNode } from 'react';
import { api, ask, type Problem, type ShopView, type TypedBath } from '../api/client';
import { useWrite } from '../api/useWrite';
import { useKept } from '../outbox/drafts';
import { useAllowed, usePerson, useUnits } from '../session/session';
import { keys } from '../api/keys';
import { figure, sign } from '../units/format';
import { Button } from '../ui/button';
import { Card } from '../ui/card';
import { Choice } from '../ui/choice';
import { Field, SelectField, TextArea, TextField } from '../ui/field';
import { Notice } from '../ui/states';

const useShop = () => useQuery({ queryKey: keys.shop, queryFn: () => ask(api.GET('/api/shop')) });

/** What the shop is called, its baths, and how makers write the day a carburetor was made. */
export function ShopCards() {
  const shop = useShop();
  const mayChange = useAllowed('manageShop');
  if (!shop.data) return null;
  // What was changed elsewhere begins anew; what is being typed is kept under what it was typed on.
  return (
    <>
      {!mayChange && <p className="text-mute">Only a lead changes what stands here.</p>}
      <Facts key={JSON.stringify(shop.data.facts)} shop={shop.data} />
      <Open key={JSON.stringify(shop.data.open)} shop={shop.data} />
      <Suppliers key={JSON.stringify(shop.data.suppliers)} shop={shop.data} />
      <PinSets key={JSON.stringify(shop.data.pinSets)} shop={shop.data} />
      <Baths key={JSON.stringify(shop.data.baths)} shop={shop.data} />
      <DateCodes key={JSON.stringify(shop.data.dateCodes)} shop={shop.data} />
    </>
  );
}

/** A draft of a part of the shop, and sending it. */
function useChange<T>(name: string, start: T, send: (draft: T) => Promise<ShopView>) {
  const person = usePerson();
  const queries = useQueryClient();
  const mayChange = useAllowed('manageShop');
  const [kept, keep, clear] = useKept(`${person.id}:shop:${name}`, { on: JSON.stringify(start), draft: start });
  // A draft of what has been changed meanwhile is no draft of this.
  const draft = kept.on === JSON.stringify(start) ? kept.draft : start;
  const change = useWrite(() => send(draft), {
    done: (shop) => {
      clear();
      queries.setQueryData(keys.shop, shop);
    },
    changes: [keys.shop, keys.baths, keys.session, keys.rules, keys.bench],
  });
  return {
    draft,
    keep: (next: T) => keep({ on: JSON.stringify(start), draft: next }),
    clear,
    changed: JSON.stringify(draft) !== JSON.stringify(start),
    mayChange,
    change,
    error: (field: string): string | undefined => change.problem?.errors[field]?.[0],
  };
}

function Foot({
  on,
  busy,
  problem,
  onDrop,
}: {
  on: boolean;
  busy: boolean;
  problem: Problem | null;
  onDrop: () => void;
}) {
  return (
    <>
      {problem && Object.keys(problem.errors).length === 0 && <Notice title={problem.title}>{problem.detail}</Notice>}
      {on && (
        <div className="flex flex-wrap gap-3">
          <Button type="submit" look="hands" disabled={busy}>
            Change it
          </Button>
          <Button look="quiet" onClick={onDrop}>
            Leave it as it was
          </Button>
        </div>
      )}
    </>
  );
}

function Form({ label, onSubmit, children }: { label: string; onSubmit: () => void; children: ReactNode }) {
  return (
    <Card label={label} title={label} className="block">
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          onSubmit();
        }}
      >
        {children}
      </form>
    </Card>
  );
}

/** When the shop is open: what is promised falls on such a day. */
function Open({ shop }: { shop: ShopView }) {
  const was = shop.open;
  const { draft, keep, clear, changed, mayChange, change, error } = useChange('open', was, (open) =>
    ask(api.PUT('/api/shop/open', { body: { open, was } })),
  );
  return (
    <Form label="Open" onSubmit={() => void change.run()}>
      <fieldset disabled={!mayChange} className="grid gap-3">
        <TextField
          label="Days and hours"
          className="num"
          placeholder="Mon-Fri 8:00-17:00, Sat 9:00-12:30"
          value={draft.week}
          problem={error('week')}
          onChange={(event) => keep({ ...draft, week: event.target.value })}
        />
        <TextArea
          label="Shut"
          className="num"
          hint="A line each: 2026-12-24 to 2027-01-02 Christmas; 1 May for every year."
          value={draft.shut}
          problem={error('shut')}
          onChange={(event) => keep({ ...draft, shut: event.target.value })}
        />
      </fieldset>
      <Foot on={changed} busy={change.busy} problem={change.problem} onDrop={clear} />
    </Form>
  );
}

/** Who the shop orders from. What they ask for an item comes with the catalogue. */
function Suppliers({ shop }: { shop: ShopView }) {
  const start = shop.suppliers.map((one) => ({ name: one.name, freight: String(one.freight) }));
  const { draft, keep, clear, changed, mayChange, change, error } = useChange('suppliers', start, (suppliers) =>
    ask(api.PUT('/api/shop/suppliers', { body: { suppliers, was: shop.suppliers } })),
  );
  const set = (place: number, part: Partial<(typeof start)[number]>): void =>
    keep(draft.map((one, i) => (i === place ? { ...one, ...part } : one)));
  return (
    <Form label="Suppliers" onSubmit={() => void change.run()}>
      <p className="text-mute">
        What one order costs to send counts when the buying plan spreads orders. Prices come with the catalogue.
      </p>
      <fieldset disabled={!mayChange} className="grid gap-3">
        {draft.map((one, i) => (
          <div key={i} className="grid items-start gap-3 sm:grid-cols-[1fr_10rem_auto]">
            <TextField
              label="Supplier"
              value={one.name}
              problem={error(`suppliers[${i}].name`)}
              onChange={(event) => set(i, { name: event.target.value })}
            />
            <TextField
              label={`Freight, ${shop.facts.currency}`}
              className="num"
              inputMode="decimal"
              value={one.freight}
              problem={error(`suppliers[${i}].freight`)}
              onChange={(event) => set(i, { freight: event.target.value })}
            />
            {mayChange && (
              <Button
                className="justify-self-start sm:mt-7"
                aria-label={`Take away ${one.name || 'the new supplier'}`}
                onClick={() => keep(draft.filter((_, place) => place !== i))}
              >
                <X aria-hidden size={18} />
              </Button>
            )}
          </div>
        ))}
      </fieldset>
      {error('suppliers') && <Notice title={error('suppliers') ?? ''} />}
      {mayChange && (
        <div>
          <Button onClick={() => keep([...draft, { name: '', freight: '' }])}>
            <Plus aria-hidden size={18} /> A supplier
          </Button>
        </div>
      )}
      <Foot on={changed} busy={change.busy} problem={change.problem} onDrop={clear} />
    </Form>
  );
}

/** Sets of gauge pins that lie in the shop: whoever has not said what pins they have goes by the first. */
function PinSets({ shop }: { shop: ShopView }) {
  const was = shop.pinSets;
  const { draft, keep, clear, changed, mayChange, change, error } = useChange('pin-sets', was, (sets) =>
    ask(api.PUT('/api/shop/pin-sets', { body: { sets, was } })),
  );
  const set = (place: number, part: Partial<(typeof was)[number]>): void =>
    keep(draft.map((one, i) => (i === place ? { ...one, ...part } : one)));
  return (
    <Form label="Gauge pins" onSubmit={() => void change.run()}>
      <p className="text-mute">
        The deciding pin is named from them. Whoever has typed no pins of their own at My bench goes by the first set.
      </p>
      <fieldset disabled={!mayChange} className="grid gap-3">
        {draft.map((one, i) => (
          <div key={i} className="grid items-start gap-3 sm:grid-cols-[12rem_1fr_auto]">
            <TextField
              label="Set"
              value={one.name}
              problem={error(`sets[${i}].name`)}
              onChange={(event) => set(i, { name: event.target.value })}
            />
            <TextField
              label="Pins in it"
              className="num"
              placeholder="#61-#80, 0.30-1.00 by 0.05"
              value={one.pins}
              problem={error(`sets[${i}].pins`)}
              onChange={(event) => set(i, { pins: event.target.value })}
            />
            {mayChange && (
              <Button
                className="justify-self-start sm:mt-7"
                aria-label={`Take away ${one.name || 'the new set'}`}
                onClick={() => keep(draft.filter((_, place) => place !== i))}
              >
                <X aria-hidden size={18} />
              </Button>
            )}
          </div>
        ))}
      </fieldset>
      {error('sets') && <Notice title={error('sets') ?? ''} />}
      {mayChange && (
        <div>
          <Button onClick={() => keep([...draft, { name: '', pins: '' }])}>
            <Plus aria-hidden size={18} /> A set
          </Button>
        </div>
      )}
      <Foot on={changed} busy={change.busy} problem={change.problem} onDrop={clear} />
    </Form>
  );
}

function Facts({ shop }: { shop: ShopView }) {
  const was = shop.facts;
  const { draft, keep, clear, changed, mayChange, change, error } = useChange('facts', was, (facts) =>
    ask(api.PUT('/api/shop/facts', { body: { facts, was } })),
  );
  return (
    <Form label="The shop" onSubmit={() => void change.run()}>
      <fieldset disabled={!mayChange} className="grid gap-3 sm:grid-cols-[1fr_16rem_8rem]">
        <TextField
          label="Name"
          value={draft.name}
          problem={error('shopName')}
          onChange={(event) => keep({ ...draft, name: event.target.value })}
        />
        <SelectField
          label="Time zone"
          problem={error('timeZone')}
          value={draft.timeZone}
          onChange={(event) => keep({ ...draft, timeZone: event.target.value })}
        >
          {was.timeZone === '' && <option value="">the server’s own clock</option>}
          {['UTC', ...Intl.supportedValuesOf('timeZone')].map((zone) => (
            <option key={zone}>{zone}</option>
          ))}
        </SelectField>
        <TextField
          label="Currency"
          maxLength={3}
          value={draft.currency}
          problem={error('currency')}
          hint="Amounts stay as they are"
          onChange={(event) => keep({ ...draft, currency: event.target.value.toUpperCase() })}
        />
      </fieldset>
      <Foot on={changed} busy={change.busy} problem={change.problem} onDrop={clear} />
    </Form>
  );
}

function Baths({ shop }: { shop: ShopView }) {
  const units = useUnits();
  const start: TypedBath[] = shop.baths.map((bath) => ({
    key: bath.key,
    label: bath.label,
    vessel: bath.vessel,
    baskets: String(bath.baskets),
    room: figure('temperature', bath.roomC, units),
    timeConstant: figure('minutes', bath.timeConstantMin, units),
  }));
  const { draft, keep, clear, changed, mayChange, change, error } = useChange('baths', start, (baths) =>
    ask(api.PUT('/api/shop/baths', { body: { baths, units, was: shop.baths } })),
  );
  const set = (place: number, part: Partial<TypedBath>): void =>
    keep(draft.map((bath, i) => (i === place ? { ...bath, ...part } : bath)));
  return (
    <Form label="Baths" onSubmit={() => void change.run()}>
      <p className="text-mute">
        The time constant is how long a bath takes for about two thirds of the way to where it is heading; its own log
        of temperatures takes over as soon as it says more.
      </p>
      <fieldset disabled={!mayChange} className="grid gap-4">
        {draft.map((bath, i) => (
          <div
            key={bath.key ?? `new ${i}`}
            className="grid items-start gap-3 sm:grid-cols-[1fr_auto_6rem_8rem_9rem_auto]"
          >
            <TextField
              label={`Name of bath ${i + 1}`}
              value={bath.label}
              problem={error(`baths[${i}].label`)}
              onChange={(event) => set(i, { label: event.target.value })}
            />
            <Field label="Kind" problem={error(`baths[${i}].vessel`)}>
              {() => (
                <Choice
                  label={`Kind of bath ${i + 1}`}
                  value={bath.vessel}
                  options={[
                    { value: 'heated', label: 'Heated' },
                    { value: 'tub', label: 'Cold tub' },
                  ]}
                  onChange={(vessel) => set(i, { vessel })}
                />
              )}
            </Field>
            <TextField
              label="Baskets"
              className="num"
              inputMode="numeric"
              value={bath.baskets}
              problem={error(`baths[${i}].baskets`)}
              onChange={(event) => set(i, { baskets: event.target.value })}
            />
            <TextField
              label={`Room, ${sign('temperature', units)}`}
              className="num"
              inputMode="decimal"
              value={bath.room}
              problem={error(`baths[${i}].room`)}
              onChange={(event) => set(i, { room: event.target.value })}
            />
            <TextField
              label="Time constant, min"
              className="num"
              inputMode="decimal"
              value={bath.timeConstant}
              problem={error(`baths[${i}].timeConstant`)}
              onChange={(event) => set(i, { timeConstant: event.target.value })}
            />
            {mayChange && (
              <Button
                className="justify-self-start sm:mt-7"
                aria-label={`Take away bath ${i + 1}`}
                onClick={() => keep(draft.filter((_, place) => place !== i))}
              >
                <X aria-hidden size={18} />
              </Button>
            )}
          </div>
        ))}
      </fieldset>
      {error('baths') && <Notice title={error('baths') ?? ''} />}
      {mayChange && (
        <div>
          <Button
            onClick={() =>
              keep([
                ...draft,
                {
                  key: null,
                  label: '',
                  vessel: 'tub',
                  baskets: '1',
                  room: figure('temperature', 20, units),
                  timeConstant: '60',
                },
              ])
            }
          >
            <Plus aria-hidden size={18} /> Another bath
          </Button>
        </div>
      )}
      <Foot on={changed} busy={change.busy} problem={change.problem} onDrop={clear} />
    </Form>
  );
}

function DateCodes({ shop }: { shop: ShopView }) {
  const start = shop.dateCodes.map((code) => ({
    ...code,
    firstYear: String(code.firstYear),
    lastYear: String(code.lastYear),
  }));
  const { draft, keep, clear, changed, mayChange, change, error } = useChange('date-codes', start, (codes) =>
    ask(
      api.PUT('/api/shop/date-codes', {
        body: {
          // What is no number is no year either, and is refused at its box.
          patterns: codes.map((code) => ({
            ...code,
            firstYear: Number(code.firstYear) || 0,
            lastYear: Number(code.lastYear) || 0,
          })),
          was: shop.dateCodes,
        },
      }),
    ),
  );
  const set = (place: number, part: Partial<(typeof start)[number]>): void =>
    keep(draft.map((code, i) => (i === place ? { ...code, ...part } : code)));
  return (
    <Form label="Date codes" onSubmit={() => void change.run()}>
      <p className="text-mute">
        How a maker writes the day a carburetor was made, letter by letter: Y, YY or YYYY the year’s last digits; DDD
        day of the year, WW week, MM month, A month as a letter, DD day of the month.
      </p>
      <fieldset disabled={!mayChange} className="grid gap-3">
        {draft.map((code, i) => (
          <div key={i} className="grid items-start gap-3 sm:grid-cols-[1fr_8rem_6rem_6rem_1fr_auto]">
            <TextField
              label="Maker"
              value={code.maker}
              problem={error(`patterns[${i}].maker`)}
              onChange={(event) => set(i, { maker: event.target.value })}
            />
            <TextField
              label="Written"
              className="num"
              value={code.pattern}
              problem={error(`patterns[${i}].pattern`)}
              onChange={(event) => set(i, { pattern: event.target.value.toUpperCase() })}
            />
            <TextField
              label="From"
              className="num"
              inputMode="numeric"
              value={code.firstYear}
              problem={error(`patterns[${i}].years`)}
              onChange={(event) => set(i, { firstYear: event.target.value })}
            />
            <TextField
              label="To"
              className="num"
              inputMode="numeric"
              value={code.lastYear}
              onChange={(event) => set(i, { lastYear: event.target.value })}
            />
            <TextField
              label="Source"
              value={code.source}
              problem={error(`patterns[${i}].source`)}
              onChange={(event) => set(i, { source: event.target.value })}
            />
            {mayChange && (
              <Button
                className="justify-self-start sm:mt-7"
                aria-label={`Take away the date code of ${code.maker || 'nobody yet'}`}
                onClick={() => keep(draft.filter((_, place) => place !== i))}
              >
                <X aria-hidden size={18} />
              </Button>
            )}
          </div>
        ))}
      </fieldset>
      {mayChange && (
        <div>
          <Button
            onClick={() =>
              keep([
                ...draft,
                { maker: '', pattern: '', firstYear: '1990', lastYear: String(new Date().getFullYear()), source: '' },
              ])
            }
          >
            <Plus aria-hidden size={18} /> Another maker
          </Button>
        </div>
      )}
      <Foot on={changed} busy={change.busy} problem={change.problem} onDrop={clear} />
    </Form>
  );
}
