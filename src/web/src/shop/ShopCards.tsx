import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Plus, X } from 'lucide-react';
import { Fragment, type ReactNode } from 'react';
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

/** A box of a row of a list. */
interface Column<T> {
  field: keyof T & string;
  label: string | ((place: number) => string);
  num?: boolean;
  inputMode?: 'decimal' | 'numeric';
  placeholder?: string;
  /** Typed small, it is written large. */
  capitals?: boolean;
  /** The field of the answer that says what is wrong with it; null when another box says it. */
  wrong?: string | null;
  /** Drawn otherwise than as a box to type in. */
  draw?: (row: T, place: number, set: (part: Partial<T>) => void, problem: string | undefined) => ReactNode;
}

interface ListProps<T> {
  /** Its name in what is sent and answered. */
  name: string;
  label: string;
  about: string;
  start: T[];
  send: (rows: T[]) => Promise<ShopView>;
  /** The list’s name in the answer’s problems. */
  list: string;
  columns: readonly Column<T>[];
  /** How the boxes of a row stand side by side. */
  grid: string;
  takeAway: (row: T, place: number) => string;
  add: string;
  fresh: () => T;
}

/** A list of the shop’s, row by row: what is in a row is a table of boxes. */
function List<T extends object>({
  name,
  label,
  about,
  start,
  send,
  list,
  columns,
  grid,
  takeAway,
  add,
  fresh,
}: ListProps<T>) {
  const { draft, keep, clear, changed, mayChange, change, error } = useChange(name, start, send);
  const box = (row: T, i: number, column: Column<T>): ReactNode => {
    const { field, num, inputMode, placeholder, capitals, wrong = field, draw } = column;
    const set = (part: Partial<T>): void => keep(draft.map((one, place) => (place === i ? { ...one, ...part } : one)));
    const problem = wrong === null ? undefined : error(`${list}[${i}].${wrong}`);
    if (draw) return <Fragment key={field}>{draw(row, i, set, problem)}</Fragment>;
    return (
      <TextField
        key={field}
        label={typeof column.label === 'string' ? column.label : column.label(i)}
        className={num ? 'num' : ''}
        {...(inputMode ? { inputMode } : {})}
        {...(placeholder ? { placeholder } : {})}
        value={String(row[field])}
        problem={problem}
        onChange={({ target: { value } }) =>
          set({ [field]: capitals ? value.toUpperCase() : value } as unknown as Partial<T>)
        }
      />
    );
  };
  return (
    <Form label={label} onSubmit={() => void change.run()}>
      <p className="text-mute">{about}</p>
      <fieldset disabled={!mayChange} className="grid gap-3">
        {draft.map((row, i) => (
          <div key={i} className={`grid items-start gap-3 ${grid}`}>
            {columns.map((column) => box(row, i, column))}
            {mayChange && (
              <Button
                className="justify-self-start sm:mt-7"
                aria-label={takeAway(row, i)}
                onClick={() => keep(draft.filter((_, place) => place !== i))}
              >
                <X aria-hidden size={18} />
              </Button>
            )}
          </div>
        ))}
      </fieldset>
      {error(list) && <Notice title={error(list) ?? ''} />}
      {mayChange && (
        <div>
          <Button onClick={() => keep([...draft, fresh()])}>
            <Plus aria-hidden size={18} /> {add}
          </Button>
        </div>
      )}
      <Foot on={changed} busy={change.busy} problem={change.problem} onDrop={clear} />
    </Form>
  );
}

/** Who the shop orders from. What they ask for an item comes with the catalogue. */
function Suppliers({ shop }: { shop: ShopView }) {
  return (
    <List
      name="suppliers"
      label="Suppliers"
      about="What one order costs to send counts when the buying plan spreads orders. Prices come with the catalogue."
      start={shop.suppliers.map((one) => ({ name: one.name, freight: String(one.freight) }))}
      send={(suppliers) => ask(api.PUT('/api/shop/suppliers', { body: { suppliers, was: shop.suppliers } }))}
      list="suppliers"
      grid="sm:grid-cols-[1fr_10rem_auto]"
      columns={[
        { field: 'name', label: 'Supplier' },
        { field: 'freight', label: `Freight, ${shop.facts.currency}`, num: true, inputMode: 'decimal' },
      ]}
      takeAway={(one) => `Take away ${one.name || 'the new supplier'}`}
      add="A supplier"
      fresh={() => ({ name: '', freight: '' })}
    />
  );
}

/** Sets of gauge pins that lie in the shop: whoever has not said what pins they have goes by the first. */
function PinSets({ shop }: { shop: ShopView }) {
  const was = shop.pinSets;
  return (
    <List
      name="pin-sets"
      label="Gauge pins"
      about="The deciding pin is named from them. Whoever has typed no pins of their own at My bench goes by the first set."
      start={was}
      send={(sets) => ask(api.PUT('/api/shop/pin-sets', { body: { sets, was } }))}
      list="sets"
      grid="sm:grid-cols-[12rem_1fr_auto]"
      columns={[
        { field: 'name', label: 'Set' },
        { field: 'pins', label: 'Pins in it', num: true, placeholder: '#61-#80, 0.30-1.00 by 0.05' },
      ]}
      takeAway={(one) => `Take away ${one.name || 'the new set'}`}
      add="A set"
      fresh={() => ({ name: '', pins: '' })}
    />
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
  const degrees = (roomC: number): string => figure('temperature', roomC, units);
  return (
    <List<TypedBath>
      name="baths"
      label="Baths"
      about={
        'The time constant is how long a bath takes for about two thirds of the way to where ' +
        'it is heading; its own log of temperatures takes over as soon as it says more.'
      }
      start={shop.baths.map((bath) => ({
        key: bath.key,
        label: bath.label,
        vessel: bath.vessel,
        baskets: String(bath.baskets),
        room: degrees(bath.roomC),
        timeConstant: figure('minutes', bath.timeConstantMin, units),
      }))}
      send={(baths) => ask(api.PUT('/api/shop/baths', { body: { baths, units, was: shop.baths } }))}
      list="baths"
      grid="sm:grid-cols-[1fr_auto_6rem_8rem_9rem_auto]"
      columns={[
        { field: 'label', label: (i) => `Name of bath ${i + 1}` },
        {
          field: 'vessel',
          label: 'Kind',
          draw: (bath, i, set, problem) => (
            <Field label="Kind" problem={problem}>
              {() => (
                <Choice
                  label={`Kind of bath ${i + 1}`}
                  value={bath.vessel}
                  options={[
                    { value: 'heated', label: 'Heated' },
                    { value: 'tub', label: 'Cold tub' },
                  ]}
                  onChange={(vessel) => set({ vessel })}
                />
              )}
            </Field>
          ),
        },
        { field: 'baskets', label: 'Baskets', num: true, inputMode: 'numeric' },
        { field: 'room', label: `Room, ${sign('temperature', units)}`, num: true, inputMode: 'decimal' },
        { field: 'timeConstant', label: 'Time constant, min', num: true, inputMode: 'decimal' },
      ]}
      takeAway={(_, i) => `Take away bath ${i + 1}`}
      add="Another bath"
      fresh={() => ({ key: null, label: '', vessel: 'tub', baskets: '1', room: degrees(20), timeConstant: '60' })}
    />
  );
}

function DateCodes({ shop }: { shop: ShopView }) {
  // What is no number is no year either, and is refused at its box.
  const year = (typed: string): number => Number(typed) || 0;
  return (
    <List
      name="date-codes"
      label="Date codes"
      about={
        'How a maker writes the day a carburetor was made, letter by letter: Y, YY or YYYY the year’s last ' +
        'digits; DDD day of the year, WW week, MM month, A month as a letter, DD day of the month.'
      }
      start={shop.dateCodes.map((code) => ({
        ...code,
        firstYear: String(code.firstYear),
        lastYear: String(code.lastYear),
      }))}
      send={(codes) => {
        const patterns = codes.map((code) => ({
          ...code,
          firstYear: year(code.firstYear),
          lastYear: year(code.lastYear),
        }));
        return ask(api.PUT('/api/shop/date-codes', { body: { patterns, was: shop.dateCodes } }));
      }}
      list="patterns"
      grid="sm:grid-cols-[1fr_8rem_6rem_6rem_1fr_auto]"
      columns={[
        { field: 'maker', label: 'Maker' },
        { field: 'pattern', label: 'Written', num: true, capitals: true },
        { field: 'firstYear', label: 'From', num: true, inputMode: 'numeric', wrong: 'years' },
        { field: 'lastYear', label: 'To', num: true, inputMode: 'numeric', wrong: null },
        { field: 'source', label: 'Source' },
      ]}
      takeAway={(code) => `Take away the date code of ${code.maker || 'nobody yet'}`}
      add="Another maker"
      fresh={() => ({
        maker: '',
        pattern: '',
        firstYear: '1990',
        lastYear: String(new Date().getFullYear()),
        source: '',
      })}
    />
  );
}
