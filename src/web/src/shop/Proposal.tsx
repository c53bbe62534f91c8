import { useState } from 'react';
import { Link } from 'react-router';
import type { KnowledgeLook } from '../api/client';
import { useUnits } from '../session/session';
import { say } from '../units/format';
import { Button } from '../ui/button';
import { TextField } from '../ui/field';
import { Notice } from '../ui/states';
import type { ProposalState } from './useProposal';

const shown = 20;

/** What a change of the tables would do, row by row and tray by tray, and the word that lets it count. */
export function Proposal({ proposal, aside = false }: { proposal: ProposalState; aside?: boolean }) {
  const [why, setWhy] = useState('');
  const { looked, problem } = proposal;
  if (!looked) return problem ? <Notice title={problem.title}>{problem.detail}</Notice> : null;
  const errors = problem?.errors ?? {};
  if (looked.problems.length > 0)
    return (
      <Notice title="Nothing was changed: this does not hold together.">
        <ul>
          {looked.problems.slice(0, shown).map((one) => (
            <li key={`${one.table} ${one.row} ${one.column} ${one.what}`}>
              {one.table}
              {one.row ? `, row ${one.row}` : ''}
              {one.column ? `, ${words(one.column)}` : ''}: {one.what}
            </li>
          ))}
        </ul>
      </Notice>
    );
  // While a version is set aside, going back changes no row and counts all the same.
  if (looked.rows.length === 0 && !aside) return <Notice tone="ok" title="That changes nothing." />;
  return (
    <form
      aria-label="What it does"
      className="bg-paper border-line mt-2 grid gap-3 rounded-lg border p-4"
      onSubmit={(event) => {
        event.preventDefault();
        void proposal.accept(why);
      }}
    >
      <Rows looked={looked} />
      <Trays looked={looked} />
      <TextField
        label="Why"
        autoFocus
        value={why}
        problem={errors.why?.[0]}
        onChange={(event) => setWhy(event.target.value)}
      />
      {problem && !errors.why && <Notice title={problem.title}>{problem.detail}</Notice>}
      <span className="flex flex-wrap gap-2">
        <Button type="submit" look="hands" disabled={proposal.busy}>
          Accept
        </Button>
        <Button onClick={proposal.drop}>Leave it</Button>
      </span>
    </form>
  );
}

function Rows({ looked }: { looked: KnowledgeLook }) {
  return (
    <div>
      <h3 className="font-strong">
        {looked.rows.length === 1 ? 'One row changes' : `${looked.rows.length} rows change`}
      </h3>
      <ul className="grid gap-1">
        {looked.rows.slice(0, shown).map((row) => {
          const columns = looked.columns[row.table] ?? [];
          const { before, after } = row;
          return (
            <li key={`${row.table} ${row.key}`} className="leading-snug">
              <span className="font-bold">{row.key}</span>{' '}
              {!after
                ? 'is taken out'
                : !before
                  ? 'is new'
                  : columns
                      .map((column, i) => ({ column, was: before[i] ?? '', now: after[i] ?? '' }))
                      .filter((cell) => cell.was !== cell.now)
                      .map((cell) => `${words(cell.column)}: ${cell.was || 'nothing'} → ${cell.now || 'nothing'}`)
                      .join('; ')}
            </li>
          );
        })}
        {looked.rows.length > shown && <li className="text-mute">and {looked.rows.length - shown} more</li>}
      </ul>
    </div>
  );
}

function Trays({ looked }: { looked: KnowledgeLook }) {
  const units = useUnits();
  return (
    <div>
      <h3 className="font-strong">
        {looked.trays.length === 0
          ? `No tray gets other advice, of ${looked.open} on the bench.`
          : looked.trays.length === 1
            ? `One tray gets other advice, of ${looked.open} on the bench:`
            : `${looked.trays.length} trays get other advice, of ${looked.open} on the bench:`}
      </h3>
      <ul className="grid gap-1">
        {looked.trays.slice(0, shown).map((tray) => (
          <li key={tray.number} className="leading-snug">
            <Link to={`/tray/${tray.number}`} className="underline underline-offset-4">
              <span className="num font-bold">{tray.number}</span> {tray.machineName}
            </Link>
            <span className="block">
              {say(tray.before.do, units)} → <strong>{say(tray.after.do, units)}</strong>
            </span>
          </li>
        ))}
        {looked.trays.length > shown && <li className="text-mute">and {looked.trays.length - shown} more</li>}
      </ul>
    </div>
  );
}

/** A column's name as it is read. */
export const words = (column: string): string => column.replace(/_/g, ' ');
