import { Card } from '../../ui/card';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Download } from 'lucide-react';
import { useEffect, useState } from 'react';
import { v7 as uuidv7 } from 'uuid';
import {
  api,
  ask,
  problemOf,
  sendCatalogue,
  type CatalogueFile,
  type ImportView,
  type Problem,
} from '../../api/client';
import { useWrite } from '../../api/useWrite';
import { useAllowed } from '../../session/session';
import { Notice, Trouble } from '../../ui/states';
import { ImportReport } from './ImportReport';
import { keys } from '../../api/keys';

const fileWord: Record<CatalogueFile, string> = {
  items: 'Kits, parts, assortments, carburetors',
  contents: 'What is in them',
  fits: 'What they are listed for',
  supersessions: 'What took another’s place',
  suppliers: 'Suppliers and freight',
  offers: 'Prices and lead times',
};
const count = new Intl.NumberFormat('en-GB');
const LOOK_AGAIN_MS = 400;

/** The catalogue as files: out as they stand, in after a dry run that changes nothing. */
export function CatalogueSheet() {
  const queries = useQueryClient();
  const mayImport = useAllowed('importCatalogue');
  const catalogue = useQuery({ queryKey: keys.catalogue, queryFn: () => ask(api.GET('/api/catalogue')) });
  const [job, setJob] = useState<ImportView | null>(null);
  const [problem, setProblem] = useState<Problem | null>(null);
  const running = job?.state === 'running';
  const jobId = job?.id;
  useEffect(() => {
    if (!running || jobId === undefined) return;
    const look = setInterval(() => {
      void ask(api.GET('/api/catalogue/imports/{id}', { params: { path: { id: jobId } } }))
        .then((next) => {
          setJob(next);
          if (next.state === 'imported') void queries.invalidateQueries();
        })
        .catch((error: unknown) => {
          // A server that is away for a moment still has the import; one that was started again says it has not.
          if (problemOf(error).status !== 404) return;
          setProblem(problemOf(error));
          setJob(null);
        });
    }, LOOK_AGAIN_MS);
    return () => clearInterval(look);
  }, [running, jobId, queries]);
  const send = useWrite((file: CatalogueFile, chosen: File) => sendCatalogue(uuidv7(), file, chosen), { done: setJob });
  const accept = useWrite(
    (id: string) => ask(api.POST('/api/catalogue/imports/{id}/accept', { params: { path: { id } } })),
    { done: setJob },
  );
  const decimalComma = useWrite(
    (id: string) => ask(api.POST('/api/catalogue/imports/{id}/decimal-comma', { params: { path: { id } } })),
    { done: setJob },
  );
  const wrong = problem ?? send.problem ?? accept.problem ?? decimalComma.problem;
  const drop = async (): Promise<void> => {
    if (!job) return;
    await api.DELETE('/api/catalogue/imports/{id}', { params: { path: { id: job.id } } }).catch(() => undefined);
    // Another file may have been sent meanwhile: that one stays.
    setJob((now) => (now?.id === job.id ? null : now));
  };
  if (catalogue.isError && !catalogue.data)
    return <Trouble error={catalogue.error} retry={() => void catalogue.refetch()} />;
  return (
    <div className="grid gap-3">
      {wrong && <Notice title={wrong.title}>{wrong.detail}</Notice>}
      {job && (
        <ImportReport
          job={job}
          what={fileWord[job.file]}
          onAccept={() => void accept.run(job.id)}
          onDecimalComma={() => void decimalComma.run(job.id)}
          onDrop={() => void drop()}
        />
      )}
      <Card label="Files" className="grid gap-1">
        <p className="text-mute max-w-3xl leading-snug">
          CSV, as a spreadsheet writes it: commas, semicolons or tabs. An import is gone through first and shows what it
          would add, change and reject; nothing changes until you take it, and then all of it or nothing.
          {!mayImport && ' Importing is the lead’s to do.'}
        </p>
        <ul>
          {(catalogue.data ?? []).map((file) => (
            <li
              key={file.file}
              className="border-line grid items-center gap-x-4 gap-y-1 border-t py-2 md:grid-cols-[1fr_7rem_auto]"
            >
              <div className="leading-snug">
                <p className="font-strong">{fileWord[file.file]}</p>
                <p className="text-mute num text-note">{file.columns.join(', ')}</p>
                {file.saysAll && (
                  <p className="text-mute text-note">
                    Says all there is about the items it names: rows it leaves out go.
                  </p>
                )}
              </div>
              <p className="num md:text-right">{count.format(file.rows)} rows</p>
              <div className="flex flex-wrap gap-2">
                <a
                  href={`/api/catalogue/${file.file}.csv`}
                  download
                  aria-label={`Export ${file.file}`}
                  className="inline-flex min-h-11 items-center gap-2 px-3 underline underline-offset-4"
                >
                  <Download aria-hidden size={18} /> Export
                </a>
                {mayImport && (
                  <label
                    className={`border-line-strong focus-within:outline-dawn inline-flex min-h-11 items-center
                      rounded-lg border-[1.5px] px-4 font-medium focus-within:outline-3
                      ${running ? 'opacity-60' : 'hover:border-ink cursor-pointer'}`}
                  >
                    Import
                    <input
                      type="file"
                      accept=".csv,text/csv"
                      className="sr-only"
                      aria-label={`Import ${file.file}`}
                      disabled={running}
                      onChange={(event) => {
                        const chosen = event.target.files?.[0];
                        event.target.value = '';
                        if (chosen) void send.run(file.file, chosen);
                      }}
                    />
                  </label>
                )}
              </div>
            </li>
          ))}
        </ul>
      </Card>
    </div>
  );
}
