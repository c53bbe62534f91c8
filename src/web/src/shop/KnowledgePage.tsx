import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { api, ask, type KnowledgeVersion } from '../api/client';
import { useAllowed } from '../session/session';
import { keys } from '../api/keys';
import { useTitle } from '../shell/title';
import { moment } from '../units/format';
import { Button } from '../ui/button';
import { Card } from '../ui/card';
import { Loading, Notice, Trouble } from '../ui/states';
import { Proposal } from './Proposal';
import { useProposal } from './useProposal';

/** What the bench knows: the tables that came with the product, what the shop has changed of them, and every version. */
export function KnowledgePage() {
  useTitle('Knowledge');
  const known = useQuery({ queryKey: keys.knowledge, queryFn: () => ask(api.GET('/api/shop/knowledge')) });
  if (known.isPending) return <Loading what="the tables" />;
  if (!known.data) return <Trouble error={known.error} retry={() => void known.refetch()} />;
  const { version, tables, versions, problems } = known.data;
  return (
    <div className="grid max-w-5xl gap-4 p-3 lg:px-5">
      <header>
        <h1 className="text-heading leading-tight">Knowledge</h1>
        <p className="text-mute">
          What Trace, Strip, Clean and Build go by. You see which trays would get other advice before a change counts;
          what has been handed back stays as it was judged.
        </p>
      </header>
      {problems.length > 0 && (
        <Notice title={`Version ${version} does not fit this release. Everything is judged as it ships meanwhile.`}>
          {problems.map((one) => (
            <p key={`${one.table} ${one.row} ${one.column}`}>
              {one.table}, row {one.row}, {one.column}: {one.what}
            </p>
          ))}
          <p>Write your changes anew, or go back to an earlier version.</p>
        </Notice>
      )}
      <Card label="Tables" title="Tables" pad="rows" className="block">
        <ul className="grid gap-x-8 lg:grid-cols-2">
          {tables.map((table) => (
            <li key={table.name} className="border-line border-b">
              <Link
                to={`/knowledge/${table.name.replace('.csv', '')}`}
                className="hover:bg-paper flex min-h-12 flex-wrap items-center gap-x-4 py-1"
              >
                <span className="min-w-0 flex-1 leading-tight">
                  <span className="font-strong">{table.label}</span>
                  <span className="text-mute block text-note">{table.what}</span>
                </span>
                <span className="text-mute text-note">
                  {table.changed > 0 && <strong className="text-ink">{table.changed} of your own · </strong>}
                  {table.rows === 1 ? '1 row' : `${table.rows} rows`}
                </span>
              </Link>
            </li>
          ))}
        </ul>
      </Card>
      <Card label="Versions" title="Versions" pad="rows" className="block">
        <ul className="divide-line divide-y">
          {versions.map((one) => (
            <VersionRow key={one.number} one={one} stands={one.number === version} aside={problems.length > 0} />
          ))}
        </ul>
      </Card>
    </div>
  );
}

function VersionRow({ one, stands, aside }: { one: KnowledgeVersion; stands: boolean; aside: boolean }) {
  const mayChange = useAllowed('manageShop');
  const proposal = useProposal();
  return (
    <li aria-label={`Version ${one.number}`} className="py-1.5">
      <div className="flex min-h-11 flex-wrap items-center gap-x-4">
        <span className="num min-w-10 text-part font-bold">{one.number}</span>
        <span className="min-w-0 flex-1 leading-tight">
          <span className="font-strong">{one.what}</span>
          <span className="text-mute block text-note">
            {one.at ? `${one.by}, ${moment(one.at)}: ${one.why}` : 'As the product came'}
          </span>
        </span>
        {stands ? (
          <span className="font-bold">In use now</span>
        ) : (
          mayChange && (
            <Button disabled={proposal.busy} onClick={() => void proposal.look({ act: 'goBack', version: one.number })}>
              Go back to version {one.number}
            </Button>
          )
        )}
      </div>
      <Proposal proposal={proposal} aside={aside} />
    </li>
  );
}
