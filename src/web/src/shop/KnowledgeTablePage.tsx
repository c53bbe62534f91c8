import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { api, ask, type KnowledgeTable, type StandingRow } from '../api/client';
import { useKept } from '../outbox/drafts';
import { useAllowed, usePerson } from '../session/session';
import { keys } from '../api/keys';
import { useTitle } from '../shell/title';
import { Button, FileButton, LinkButton } from '../ui/button';
import { Card } from '../ui/card';
import { TextField } from '../ui/field';
import { Loading, Trouble } from '../ui/states';
import { Proposal, words } from './Proposal';
import { useProposal } from './useProposal';

const mark: Record<StandingRow['standing'], string> = {
  shipped: '',
  changed: 'changed here',
  changedTwice: 'changed here, and by a newer version',
  own: 'your own',
  takenOut: 'taken out',
};

/** What a column takes, where its name does not say it. */
const takes: Record<string, string> = {
  families: 'F float bowl, D diaphragm, S suction tank: the letters it is for',
  engines: '2 and 4: the strokes it is for',
  chokes: 'any; or manual, vacuum, heat, runLever',
  apart: 'together, bowl, off or apart',
  parts: 'keys of Parts, a blank between them',
  reveals: 'ids of Findings, a blank between them',
  not_with: 'ids of Findings, a blank between them',
  strength: 'always, usually, sometimes or rarely',
  prior_weight: 'how common it is, beside the others',
  background: 'how often it is there by itself, 0 to below 1',
  source: 'where it is from',
};

/** One table: found, changed row by row, or whole from a file. */
export function KnowledgeTablePage() {
  // An address that ends like a file would be taken for one.
  const { room = '', table: file = '' } = useParams();
  const name = `${room}/${file}.csv`;
  const table = useQuery({
    queryKey: keys.knowledgeTable(name),
    queryFn: () => ask(api.GET('/api/shop/knowledge/table', { params: { query: { name } } })),
  });
  useTitle(table.data?.label ?? 'Knowledge');
  if (table.isPending) return <Loading what="the table" />;
  if (!table.data)
    return (
      <Trouble error={table.error} retry={() => void table.refetch()}>
        <LinkButton to="/knowledge">All the tables</LinkButton>
      </Trouble>
    );
  return <Table table={table.data} />;
}

function Table({ table }: { table: KnowledgeTable }) {
  const mayChange = useAllowed('manageShop');
  const [find, setFind] = useState('');
  const [open, setOpen] = useState<string | null>(null);
  const wanted = find.trim().toLowerCase();
  const found = table.rows.filter(
    (row) => row.cells.join(' ').toLowerCase().includes(wanted) || mark[row.standing].includes(wanted),
  );
  return (
    <div className="grid max-w-5xl gap-4 p-3 lg:px-5">
      <header className="flex flex-wrap items-center justify-between gap-3">
        <div className="min-w-0 flex-1 basis-72">
          <h1 className="text-heading leading-tight">
            <Link to="/knowledge" className="text-mute font-medium underline underline-offset-4">
              Knowledge
            </Link>{' '}
            {table.label}
          </h1>
          <p className="text-mute">{table.what}</p>
        </div>
        <span className="flex flex-wrap gap-2">
          <FileButton to={`/api/shop/knowledge/table.csv?name=${encodeURIComponent(table.name)}`}>
            As a table
          </FileButton>
          {mayChange && (
            <Button look="hands" aria-expanded={open === ''} onClick={() => setOpen(open === '' ? null : '')}>
              A new row
            </Button>
          )}
        </span>
      </header>
      {mayChange && <TakeTable table={table} />}
      {open === '' && (
        <Card label="A new row" title="A new row">
          <RowForm table={table} done={() => setOpen(null)} />
        </Card>
      )}
      <Card label="Rows" pad="rows" className="grid gap-2">
        <TextField
          label="Find"
          placeholder="any word of a row"
          value={find}
          onChange={(event) => setFind(event.target.value)}
        />
        <p className="text-mute" role="status">
          {found.length} of {table.rows.length}
        </p>
        <ul className="divide-line divide-y">
          {found.map((row) => (
            <Row
              key={row.key}
              table={table}
              row={row}
              open={open === row.key}
              setOpen={(wide) => setOpen(wide ? row.key : null)}
            />
          ))}
        </ul>
      </Card>
    </div>
  );
}

function Row({
  table,
  row,
  open,
  setOpen,
}: {
  table: KnowledgeTable;
  row: StandingRow;
  open: boolean;
  setOpen: (open: boolean) => void;
}) {
  const mayChange = useAllowed('manageShop');
  const label = row.cells[table.columns.indexOf('label')];
  const others = table.columns
    .map((column, i) => [column, row.cells[i] ?? ''] as const)
    .filter(([column, cell]) => cell && column !== 'label' && column !== 'source' && !table.keys.includes(column));
  return (
    <li aria-label={row.key} className="py-1.5">
      <div className="flex min-h-11 flex-wrap items-center gap-x-4">
        <span className={`min-w-0 flex-1 leading-tight ${row.standing === 'takenOut' ? 'text-mute line-through' : ''}`}>
          <span className="font-strong">{label ?? row.key}</span>
          {label !== undefined && <span className="text-mute ml-2 text-note">{row.key}</span>}
          <span className="text-mute block text-note">
            {others.map(([column, cell]) => `${words(column)}: ${cell}`).join(' · ')}
          </span>
        </span>
        {mark[row.standing] && <span className="font-bold">{mark[row.standing]}</span>}
        {mayChange && (
          <Button aria-label={`Change: ${row.key}`} aria-expanded={open} onClick={() => setOpen(!open)}>
            Change
          </Button>
        )}
      </div>
      {open && <RowForm table={table} row={row} done={() => setOpen(false)} />}
    </li>
  );
}

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

function RowForm({ table, row, done }: { table: KnowledgeTable; row?: StandingRow; done: () => void }) {
  const person = usePerson();
  const [cells, keep, clear] = useKept(
    `${person.id}:knowledge:${table.name}:${row?.key ?? ''}`,
    row?.cells ?? table.columns.map(() => ''),
  );
  const proposal = useProposal(() => {
    clear();
    done();
  });
  const mine = (column: string): string | undefined =>
    proposal.looked?.problems.find((one) => one.table === table.name && one.row === null && one.column === column)
      ?.what;
  const ships = row?.standing !== 'own' && row !== undefined;
  return (
    <div className="grid gap-3 py-2">
      {row?.shipped && row.standing === 'changedTwice' && (
        <p className="text-mute">It ships like this now: {row.shipped.filter((cell) => cell !== '').join(' · ')}</p>
      )}
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          void proposal.look({ act: 'write', table: table.name, key: row?.key ?? null, cells: [...cells] });
        }}
      >
        {row?.standing !== 'takenOut' && (
          <div className="grid items-start gap-3 sm:grid-cols-2">
            {table.columns.map((column, i) => (
              <TextField
                key={column}
                label={capital(words(column))}
                hint={takes[column]}
                value={cells[i] ?? ''}
                problem={mine(column)}
                disabled={ships && table.keys.includes(column)}
                onChange={(event) => {
                  proposal.drop();
                  keep(cells.map((cell, at) => (at === i ? event.target.value : cell)));
                }}
              />
            ))}
          </div>
        )}
        <span className="flex flex-wrap gap-2">
          {row?.standing !== 'takenOut' && (
            <Button type="submit" look={proposal.looked ? 'plain' : 'hands'} disabled={proposal.busy}>
              What does it do?
            </Button>
          )}
          {row && row.standing !== 'takenOut' && !(table.stays && ships) && (
            <Button
              disabled={proposal.busy}
              onClick={() => void proposal.look({ act: 'takeOut', table: table.name, key: row.key })}
            >
              Take it out
            </Button>
          )}
          {row && ships && row.standing !== 'shipped' && (
            <Button
              disabled={proposal.busy}
              onClick={() => void proposal.look({ act: 'asShipped', table: table.name, key: row.key })}
            >
              As it ships
            </Button>
          )}
          <Button
            onClick={() => {
              clear();
              done();
            }}
          >
            Leave it as it is
          </Button>
        </span>
      </form>
      <Proposal proposal={proposal} />
    </div>
  );
}

function TakeTable({ table }: { table: KnowledgeTable }) {
  const [name, setName] = useState('');
  const proposal = useProposal(() => setName(''));
  return (
    <Card label="From a file" className="grid gap-2">
      <label className="cursor-pointer underline underline-offset-4 focus-within:outline-2">
        Take the whole table from a file, as a spreadsheet saves it
        <input
          type="file"
          accept=".csv,text/csv"
          className="sr-only"
          aria-label="A file of this table"
          onChange={(event) => {
            const input = event.currentTarget;
            const chosen = input.files?.[0];
            if (chosen) {
              setName(chosen.name);
              void proposal.look({ table: table.name, file: chosen });
            }
            input.value = '';
          }}
        />
      </label>
      {name && <p>{name}</p>}
      <Proposal proposal={proposal} />
    </Card>
  );
}
