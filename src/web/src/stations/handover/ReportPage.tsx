import { useQuery } from '@tanstack/react-query';
import { ArrowLeft, Printer } from 'lucide-react';
import { useParams } from 'react-router';
import { api, ask, type Report } from '../../api/client';
import { useUnits } from '../../session/session';
import { fateWord } from '../../shell/words';
import { trayPath } from '../../shell/stations';
import { Button, FileButton, LinkButton } from '../../ui/button';
import { Loading, Trouble } from '../../ui/states';
import { VerdictMark, verdictText } from '../../ui/verdict';
import { moment, money, quantity, say, turns } from '../../units/format';
import { keys } from '../../api/keys';

/** What the owner and the next technician get: one or two sheets of A4, or a file. */
export function ReportPage() {
  const number = Number(useParams().number);
  const query = useQuery({
    queryKey: keys.report(number),
    queryFn: () => ask(api.GET('/api/trays/{number}/report', { params: { path: { number } } })),
  });
  if (query.isPending) return <Loading what="the report" />;
  if (!query.data) return <Trouble error={query.error} retry={() => void query.refetch()} />;
  return (
    <div className="p-3 lg:px-5 lg:pb-8 print:p-0">
      <div className="mb-3 flex flex-wrap gap-2 print:hidden">
        <LinkButton to={trayPath(number, 'handover')}>
          <ArrowLeft aria-hidden size={18} /> Tray {number}
        </LinkButton>
        <Button onClick={() => window.print()}>
          <Printer aria-hidden size={18} /> Print
        </Button>
        <FileButton to={`/api/trays/${number}/report.json`}>JSON</FileButton>
        <FileButton to={`/api/trays/${number}/report.csv`}>CSV</FileButton>
      </div>
      <Sheet report={query.data} />
    </div>
  );
}

function Sheet({ report }: { report: Report }) {
  const units = useUnits();
  const { tray, kit, lines, watch, signed } = report;
  const sections = [...new Set(lines.map((line) => line.section))];
  return (
    <article className="bg-sheet border-line mx-auto max-w-[52rem] rounded-xl border px-8 py-7 print:max-w-none print:border-0 print:p-0 print:text-[10.5pt]">
      <header className="border-ink flex items-start justify-between gap-6 border-b-2 pb-3">
        <div>
          <p className="text-mute font-strong">
            {report.releasedAt ? 'Carburetor report' : 'Carburetor report, not handed back yet'}
          </p>
          <h1 className="text-figure leading-tight">{tray.machineName}</h1>
          <p>
            {tray.ownerName}
            {tray.ownerContact && `, ${tray.ownerContact}`}
          </p>
        </div>
        <div className="text-right">
          <p className="num text-figure leading-tight font-heavy">Tray {tray.trayNumber}</p>
          <p>
            {tray.specCode ? `${tray.specMaker ?? ''} ${tray.specCode}` : 'not identified'}
            {tray.stampedNumber && `, stamped ${tray.stampedNumber}`}
            {tray.dateCode && `, date code ${tray.dateCode}`}
          </p>
          {tray.plate && <p>engine {tray.plate}</p>}
        </div>
      </header>

      {(report.dangers?.length ?? 0) > 0 && (
        <section className="border-bad my-3 rounded-lg border-2 px-4 py-2.5 break-inside-avoid">
          <h2 className="text-lead">
            {report.dangers?.some((danger) => danger.mustNotBeRun)
              ? 'Do not fill it and do not run it'
              : 'Do not run it'}
          </h2>
          <ul className="ml-5 list-disc">
            {report.dangers?.map((danger) => (
              <li key={danger.label}>
                <span className="font-strong">{danger.label}</span> ({danger.shown.join('; ')}). {danger.why}{' '}
                {danger.settle}
              </li>
            ))}
          </ul>
        </section>
      )}

      <dl className="grid grid-cols-[8rem_1fr] gap-x-4 gap-y-1 py-3 print:grid-cols-[6rem_1fr]">
        <dt className="text-mute">Owner said</dt>
        <dd>{tray.complaint}</dd>
        {((report.faults?.length ?? 0) > 0 || report.nothingFound) && (
          <>
            <dt className="text-mute">What was wrong</dt>
            <dd className="font-strong">
              {report.faults?.map((fault) => (
                <span key={fault.label} className="block">
                  {fault.label}: <span className="font-normal">{fault.referred ? 'sent on' : 'put right'}.</span>
                </span>
              ))}
              {report.nothingFound && 'No cause was found; cleaned and renewed as usual.'}
            </dd>
          </>
        )}
        <dt className="text-mute">Came in</dt>
        <dd>{moment(tray.checkedInAt)}</dd>
        {report.releasedAt && (
          <>
            <dt className="text-mute">Handed back</dt>
            <dd>
              {moment(report.releasedAt)} by {report.releasedBy}
            </dd>
          </>
        )}
        <dt className="text-mute">Kit</dt>
        <dd>
          {kit
            ? `${kit.number} ${kit.name}${kit.price === null ? '' : `, ${money(kit.price, kit.currency)}`}: ${kit.parts.join(', ')}`
            : report.declined
              ? 'Not worth the repair: nothing was fitted, nothing is charged.'
              : 'none'}
        </dd>
      </dl>

      {(report.parts?.length ?? 0) > 0 && (
        <section className="py-1 break-inside-avoid">
          <h2 className="font-bold">Parts and settings</h2>
          <ul className="columns-2 gap-x-8 max-sm:columns-1">
            {report.parts?.map((part) => (
              <li key={part.label} className="break-inside-avoid">
                <span className="first-letter:uppercase">{part.label}</span>:{' '}
                {[
                  fateWord[part.fate].toLowerCase(),
                  part.item && `from ${part.item}`,
                  part.turnsEighths != null && `left at ${turns(part.turnsEighths)} turns out`,
                  part.reason,
                  part.fate === 'leftOff' && `said ${part.by}`,
                ]
                  .filter(Boolean)
                  .join(', ')}
              </li>
            ))}
          </ul>
        </section>
      )}

      {signed && (
        <section className="border-bad my-2 rounded-lg border-2 px-4 py-2.5 break-inside-avoid">
          <h2 className="text-lead">Went out with something open</h2>
          {signed.open.length > 0 && <p>{signed.open.join('; ')}.</p>}
          {signed.dangers?.map((one) => (
            <p key={one.danger}>
              {one.what}. “{one.reason}”
            </p>
          ))}
          <p className="mt-1">
            “{signed.reason}” Signed: {signed.signedBy}
          </p>
        </section>
      )}

      <table className="mt-2 w-full text-left">
        <caption className="sr-only">Everything measured</caption>
        <thead>
          <tr className="text-mute border-line border-b">
            <th className="py-1 pr-3 font-strong">Measured</th>
            <th className="py-1 pr-3 font-strong max-sm:hidden">Should be</th>
            <th className="py-1 pr-3 font-strong">Read</th>
            <th className="py-1 font-strong">Found</th>
          </tr>
        </thead>
        {sections.map((section) => (
          <tbody key={section}>
            <tr>
              <th colSpan={4} scope="rowgroup" className="pt-2.5 pb-0.5 font-bold">
                {section}
              </th>
            </tr>
            {lines
              .filter((line) => line.section === section)
              .map((line) => (
                <tr key={line.key} className="border-line border-t align-top break-inside-avoid">
                  <th scope="row" className="py-1 pr-3 font-medium">
                    {line.label}
                    <span className="text-mute block text-note font-normal sm:hidden">{say(line.target, units)}</span>
                  </th>
                  <td className="text-mute py-1 pr-3 max-sm:hidden">{say(line.target, units)}</td>
                  <td className="py-1 pr-3">
                    {line.before.map((reading, i) => (
                      <p key={i} className="text-mute text-note print:text-[9pt]">
                        {say(reading.what, units)}: {reading.word.toLowerCase()}, {reading.takenBy},{' '}
                        {reading.asLeft ? 'as left' : 'as found'}
                      </p>
                    ))}
                    {line.standing ? (
                      <p className="font-strong">
                        {say(line.standing.what, units)}
                        <span className="text-mute block text-small font-normal print:inline print:text-[8.5pt]">
                          {' '}
                          {line.standing.asLeft ? 'as left' : 'as found'}, {line.standing.takenBy},{' '}
                          {moment(line.standing.takenAt)}
                        </span>
                      </p>
                    ) : (
                      '—'
                    )}
                  </td>
                  <td className={`py-1 font-bold ${verdictText[line.verdict]}`}>
                    <span className="inline-flex items-center gap-1.5">
                      <VerdictMark judgement={{ verdict: line.verdict, lean: 'none' }} size={16} /> {line.word}
                    </span>
                    {line.figures
                      .filter((f) =>
                        ['areaLow', 'tabBend', 'fuelTakenOn', 'drop', 'leak', 'unevenness'].includes(f.key),
                      )
                      .map((f) => (
                        <span key={f.key} className="text-mute block text-small font-normal print:text-[8.5pt]">
                          {f.label.toLowerCase()} {quantity(f.quantity, units)}
                        </span>
                      ))}
                  </td>
                </tr>
              ))}
          </tbody>
        ))}
      </table>
      {lines.length === 0 && <p className="py-4">Nothing has been measured: no spec sheet was chosen.</p>}

      {(report.notDone?.length ?? 0) > 0 && (
        <section className="mt-4 break-inside-avoid">
          <h2 className="text-part">What was not done</h2>
          <ul className="ml-5 list-disc">
            {report.notDone?.map((left) => (
              <li key={left}>{left}</li>
            ))}
          </ul>
        </section>
      )}

      <section className="mt-4 break-inside-avoid">
        <h2 className="text-part">What to watch</h2>
        <ul className="ml-5 list-disc">
          {watch.map((point) => (
            <li key={point}>{point}</li>
          ))}
        </ul>
        <p className="mt-2">
          Fuel vapour burns: refuel outdoors with the engine cold. Local rules on emissions and waste fuel come before
          anything written here.
        </p>
      </section>
    </article>
  );
}
