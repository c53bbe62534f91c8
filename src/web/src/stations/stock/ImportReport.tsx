import type { ImportView } from '../../api/client';
import { Button } from '../../ui/button';
import { Notice } from '../../ui/states';

const count = new Intl.NumberFormat('en-GB');
const phaseWord: Record<ImportView['phase'], string> = {
  reading: 'Reading',
  comparing: 'Comparing with the catalogue',
  writing: 'Writing',
};

interface Props {
  job: ImportView;
  what: string;
  onAccept: () => void;
  onDecimalComma: () => void;
  onDrop: () => void;
}

/** What an import would do or did; while it runs, how far it is. */
export function ImportReport({ job, what, onAccept, onDecimalComma, onDrop }: Props) {
  const { report } = job;
  return (
    <section aria-label="Import" className="bg-sheet border-ink grid gap-3 rounded-xl border-2 px-5 py-4">
      <h2 className="text-title">
        {job.name}: {what.toLowerCase()}
      </h2>
      {job.state === 'running' && (
        <div role="status" className="grid gap-1.5">
          <p>
            {phaseWord[job.phase]}, <span className="num">{count.format(job.rowsRead)}</span> rows
          </p>
          <progress
            aria-label="How far it is"
            className="h-3 w-full max-w-xl"
            {...(job.phase === 'reading' && job.bytes > 0 ? { value: job.bytesRead, max: job.bytes } : {})}
          />
        </div>
      )}
      {job.state === 'failed' && <Notice title={job.problem ?? 'The import broke off; nothing has been changed.'} />}
      {report && job.state !== 'running' && (
        <>
          {job.state === 'imported' ? (
            <Notice tone="ok" title="Imported." />
          ) : report.comma ? (
            <Notice title={`Is “${report.comma}” written with a decimal comma?`}>
              <p>
                Then it is read as {report.comma.replace(/(\d),(\d)/g, '$1.$2')}. If not, take the commas out of the
                file.
              </p>
              <Button look="hands" onClick={onDecimalComma}>
                Yes, a decimal comma
              </Button>
            </Notice>
          ) : report.rejected > 0 ? (
            <Notice
              title={`${count.format(report.rejected)} ${report.rejected === 1 ? 'row' : 'rows'} cannot be taken, so nothing can be imported.`}
            >
              Put them right in the file and send it again.
            </Notice>
          ) : report.added + report.changed + report.removed === 0 ? (
            <Notice tone="ok" title="Everything in it is on file already." />
          ) : (
            <Notice tone="ok" title="It can be imported. Nothing has been changed yet." />
          )}
          <dl className="flex flex-wrap gap-x-9 gap-y-1">
            {(
              [
                ['rows', report.rows],
                ['new', report.added],
                ['changed', report.changed],
                ['same', report.same],
                ['go', report.removed],
                ['rejected', report.rejected],
              ] as const
            ).map(([label, rows]) => (
              <div key={label} className="flex flex-col-reverse">
                <dt className="text-mute">{label}</dt>
                <dd
                  className={`num text-figure leading-tight font-bold ${label === 'rejected' && rows > 0 ? 'text-bad' : ''}`}
                >
                  {count.format(rows)}
                </dd>
              </div>
            ))}
          </dl>
          {report.firstRejected.length > 0 && (
            <div className="max-h-72 overflow-auto">
              <table className="w-full text-left">
                <caption className="text-mute text-left text-note">
                  {report.rejected > report.firstRejected.length
                    ? `The first ${report.firstRejected.length} rejected rows`
                    : 'Rejected rows'}
                </caption>
                <thead>
                  <tr className="text-mute text-note">
                    <th className="py-1 pr-3 font-strong">Line</th>
                    <th className="py-1 pr-3 font-strong">What is wrong</th>
                    <th className="py-1 font-strong">Row</th>
                  </tr>
                </thead>
                <tbody>
                  {report.firstRejected.map((row, place) => (
                    <tr key={place} className="border-line border-t align-top leading-snug">
                      <td className="num py-1 pr-3">{row.line}</td>
                      <td className="py-1 pr-3">{row.reason}</td>
                      <td className="text-mute py-1 break-all">{row.text}</td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </div>
          )}
          {report.examples.length > 0 && report.rejected === 0 && (
            <ul aria-label="Some of it" className="text-mute leading-snug">
              {report.examples.map((example, place) => (
                <li key={place}>{example}</li>
              ))}
            </ul>
          )}
        </>
      )}
      {job.state !== 'running' && (
        <div className="flex flex-wrap gap-3">
          {job.state === 'checked' &&
            report &&
            report.rejected === 0 &&
            report.added + report.changed + report.removed > 0 && (
              <Button look="hands" onClick={onAccept}>
                Import it
              </Button>
            )}
          <Button look="quiet" onClick={onDrop}>
            {job.state === 'checked' ? 'Drop it' : 'Close'}
          </Button>
        </div>
      )}
    </section>
  );
}
