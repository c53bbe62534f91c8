import { useState } from 'react';
import { api, ask, sendSheetTable, type SheetFileLook, type SheetTaken, type SpecSheet } from '../api/client';
import { useWrite } from '../api/useWrite';
import { keys } from '../api/keys';
import { Button } from '../ui/button';
import { Card } from '../ui/card';
import { Notice } from '../ui/states';

const becomes: [SheetTaken['becomes'], string][] = [
  ['new', 'new'],
  ['issue', 'as a new issue'],
  ['same', 'the same as on file'],
  ['refused', 'cannot be taken'],
];

interface Chosen {
  name: string;
  send: (take: boolean, decimalComma: boolean) => Promise<SheetFileLook>;
}

/** Spec sheets from a file, such as another shop's or a spreadsheet: looked through first, then all of them or none. */
export function TakeFile() {
  const [file, setFile] = useState<Chosen | null>(null);
  const [unread, setUnread] = useState('');
  const [decimalComma, setDecimalComma] = useState(false);
  const [looked, setLooked] = useState<SheetFileLook | null>(null);
  const look = useWrite((chosen: Chosen, comma: boolean) => chosen.send(false, comma), { done: setLooked });
  const take = useWrite((chosen: Chosen) => chosen.send(true, decimalComma), {
    changes: [keys.sheets],
    done: () => {
      setFile(null);
      setLooked(null);
    },
  });
  const read = async (chosen: File): Promise<void> => {
    setLooked(null);
    setUnread('');
    setDecimalComma(false);
    const found = /\.json$/i.test(chosen.name) ? await fromJson(chosen) : fromTable(chosen);
    setFile(found);
    if (found) await look.run(found, false);
    else setUnread(`${chosen.name} is no list of spec sheets in JSON.`);
  };
  const refused = looked?.sheets.filter((one) => one.becomes === 'refused') ?? [];
  const problem = look.problem ?? take.problem;
  return (
    <Card label="From a file" className="grid gap-2">
      <label className="cursor-pointer underline underline-offset-4 focus-within:outline-2">
        Take sheets from a file: JSON, or a table as CSV
        <input
          type="file"
          accept=".json,.csv,application/json,text/csv"
          className="sr-only"
          aria-label="A file of spec sheets"
          onChange={(event) => {
            const input = event.currentTarget;
            const chosen = input.files?.[0];
            if (chosen) void read(chosen);
            input.value = '';
          }}
        />
      </label>
      {unread && <Notice title={unread} />}
      {problem && <Notice title={problem.title}>{problem.detail}</Notice>}
      {file && looked && (
        <div className="grid gap-2">
          <p>
            {file.name}:{' '}
            {becomes
              .map(([what, word]) => [looked.sheets.filter((one) => one.becomes === what).length, word] as const)
              .filter(([count]) => count > 0)
              .map(([count, word]) => `${count} ${word}`)
              .join(', ')}
            .
          </p>
          {looked.comma ? (
            <Notice title={`Is “${looked.comma}” written with a decimal comma?`}>
              <p>
                Then it is read as {looked.comma.replace(/(\d),(\d)/g, '$1.$2')}. If not, take the commas out of the
                file.
              </p>
              <Button
                look="hands"
                onClick={() => {
                  setDecimalComma(true);
                  void look.run(file, true);
                }}
              >
                Yes, a decimal comma
              </Button>
            </Notice>
          ) : refused.length > 0 ? (
            <Notice title="Nothing was taken: put these right in the file first.">
              {refused.slice(0, 20).flatMap((one) =>
                one.problems.map((what) => (
                  <p key={`${one.code} ${what.field}`}>
                    <span className="num font-bold">{one.code}</span> {what.field}: {what.message}
                  </p>
                )),
              )}
            </Notice>
          ) : (
            <div>
              <Button look="hands" disabled={take.busy} onClick={() => void take.run(file)}>
                Take them
              </Button>
            </div>
          )}
        </div>
      )}
    </Card>
  );
}

async function fromJson(chosen: File): Promise<Chosen | null> {
  try {
    const sheets = JSON.parse((await chosen.text()).replace(/^\uFEFF/, '')) as SpecSheet[];
    if (!Array.isArray(sheets)) return null;
    return {
      name: chosen.name,
      send: (take) => ask(api.POST('/api/sheets/file', { params: { query: { take } }, body: sheets })),
    };
  } catch {
    return null;
  }
}

const fromTable = (chosen: File): Chosen => ({
  name: chosen.name,
  send: (take, decimalComma) => sendSheetTable(chosen, take, decimalComma),
});
