import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, ask, type SheetSummary } from '../api/client';
import { useAllowed } from '../session/session';
import { keys } from '../api/keys';
import { useTitle } from '../shell/title';
import { chokeWord, familyWord } from '../shell/words';
import { FileButton, LinkButton } from '../ui/button';
import { Card } from '../ui/card';
import { TakeFile } from './TakeFile';
import { TextField } from '../ui/field';
import { Loading, Trouble } from '../ui/states';

/** Every spec sheet of the shop, found by code, maker or stamped number. */
export function SheetsPage() {
  useTitle('Spec sheets');
  const mayMake = useAllowed('makeSheets');
  const mayTake = useAllowed('manageShop');
  const [find, setFind] = useState('');
  const sheets = useQuery({ queryKey: keys.sheets, queryFn: () => ask(api.GET('/api/sheets')) });
  if (sheets.isPending) return <Loading what="the sheets" />;
  if (!sheets.data) return <Trouble error={sheets.error} retry={() => void sheets.refetch()} />;
  const wanted = find.trim().toLowerCase();
  const found = sheets.data.filter((sheet) =>
    `${sheet.code} ${sheet.maker} ${sheet.stampedNumbers.join(' ')} ${familyWord[sheet.family]}`
      .toLowerCase()
      .includes(wanted),
  );
  return (
    <div className="grid max-w-5xl gap-4 p-3 lg:px-5">
      <header className="flex flex-wrap items-center justify-between gap-3">
        <h1 className="text-heading leading-tight">Spec sheets</h1>
        <span className="flex flex-wrap gap-2">
          {sheets.data.length > 0 && (
            <>
              <FileButton to="/api/sheets/file">All as JSON</FileButton>
              <FileButton to="/api/sheets/file.csv">As a table</FileButton>
            </>
          )}
          {mayMake && (
            <LinkButton look="hands" to="/sheets/new">
              A new sheet
            </LinkButton>
          )}
        </span>
      </header>
      {mayTake && <TakeFile />}
      <Card label="Sheets" pad="rows" className="grid gap-2">
        <TextField
          label="Find"
          placeholder="code, maker or stamped number"
          value={find}
          onChange={(event) => setFind(event.target.value)}
        />
        <p className="text-mute" role="status">
          {sheets.data.length === 0
            ? 'There is no sheet yet. Make the first one here, or straight from a tray at Kit.'
            : `${found.length} of ${sheets.data.length}`}
        </p>
        <ul className="divide-line divide-y">
          {found.map((sheet) => (
            <li key={sheet.code}>
              <Link
                to={`/sheets/${sheet.code}`}
                className="hover:bg-paper flex min-h-12 flex-wrap items-center gap-x-4 py-1"
              >
                <span className={`num min-w-20 text-part font-bold ${sheet.retired ? 'text-mute line-through' : ''}`}>
                  {sheet.code}
                </span>
                <span className="min-w-0 flex-1 leading-tight">
                  {sheet.maker}
                  <span className="text-mute block text-note">{about(sheet)}</span>
                </span>
                <span className="text-mute text-note">
                  {sheet.trays > 0 && `${sheet.trays === 1 ? 'one tray' : `${sheet.trays} trays`} · `}issue{' '}
                  {sheet.issue}
                </span>
              </Link>
            </li>
          ))}
        </ul>
      </Card>
    </div>
  );
}

const about = (sheet: SheetSummary): string =>
  [
    familyWord[sheet.family],
    sheet.choke ? `choke ${chokeWord[sheet.choke].toLowerCase()}` : '',
    sheet.stampedNumbers.length > 0 ? `stamped ${sheet.stampedNumbers.slice(0, 4).join(', ')}` : '',
    sheet.retired ? 'retired' : '',
  ]
    .filter(Boolean)
    .join(' · ');
