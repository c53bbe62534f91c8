import { useQuery } from '@tanstack/react-query';
import { ArrowLeft, Printer } from 'lucide-react';
import { useParams } from 'react-router';
import { api, ask, type Report, type ReportChapter, type ReportPoint } from '../../api/client';
import { OWNER, pointsOf, TECHNICIAN } from './report';
import { useUnits } from '../../session/session';
import { trayPath } from '../../shell/stations';
import { Button, FileButton, LinkButton } from '../../ui/button';
import { Loading, Trouble } from '../../ui/states';
import { VerdictMark, verdictText } from '../../ui/verdict';
import { moment, money, quantity, say } from '../../units/format';
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

function Chapters({ chapters, points }: { chapters: readonly [ReportChapter, string][]; points: ReportPoint[] }) {
  const units = useUnits();
  return chapters.map(([chapter, title]) => {
    const said = points.filter((one) => one.chapter === chapter);
    if (said.length === 0) return null;
    return (
      <section key={chapter} className="py-1.5 break-inside-avoid">
        <h2 className="text-part">{title}</h2>
        <ul className={said.length > 1 ? 'ml-5 list-disc' : ''}>
          {said.map((one) => (
            <li key={say(one.words, units)} className="break-inside-avoid first-letter:uppercase">
              {say(one.words, units)}
            </li>
          ))}
        </ul>
      </section>
    );
  });
}

/** Page one is the owner's, page two the next technician's. */
function Sheet({ report }: { report: Report }) {
  const { tray, kit, signed } = report;
  const points = pointsOf(report);
  return (
    <article className="bg-sheet border-line mx-auto max-w-[52rem] rounded-xl border px-8 py-7 max-sm:px-4 print:max-w-none print:border-0 print:p-0 print:text-[10.5pt]">
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
          <p>Came in {moment(tray.checkedInAt)}</p>
          {report.releasedAt && (
            <p>
              Handed back {moment(report.releasedAt)} by {report.releasedBy}
            </p>
          )}
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

      {signed && (
        <section className="border-bad my-3 rounded-lg border-2 px-4 py-2.5 break-inside-avoid">
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

      <div className="pt-2">
        {report.declined && (
          <p className="py-1.5 font-strong">Not worth the repair: nothing was fitted, nothing is charged.</p>
        )}
        <Chapters chapters={OWNER} points={points} />
        {report.points && kit?.price != null && (
          <p className="py-1.5">
            <span className="font-strong">Parts:</span> {money(kit.price, kit.currency)}
          </p>
        )}
        {!report.points && kit && (
          <p className="py-1.5">
            <span className="font-strong">Fitted:</span>{' '}
            {`${kit.number} ${kit.name}${kit.price === null ? '' : `, ${money(kit.price, kit.currency)}`}: ${kit.parts.join(', ')}`}
          </p>
        )}
        <p className="text-mute py-1.5">
          Fuel vapour burns: refuel outdoors with the engine cold. Local rules on emissions and waste fuel come before
          anything written here.
        </p>
      </div>

      <section
        aria-label="For the next technician"
        className="border-ink mt-4 border-t-2 pt-3 print:mt-0 print:break-before-page"
      >
        <h2 className="text-title">For the next technician</h2>
        <p>
          {tray.specCode ? `${tray.specMaker ?? ''} ${tray.specCode}` : 'not identified'}
          {tray.stampedNumber && `, stamped ${tray.stampedNumber}`}
          {tray.dateCode && `, date code ${tray.dateCode}`}
          {tray.plate && `; engine ${tray.plate}`}
        </p>
        <Chapters chapters={TECHNICIAN} points={points} />
        <Readings report={report} />
      </section>
    </article>
  );
}

/** Everything that was measured, before and after. */
function Readings({ report: { lines } }: { report: Report }) {
  const units = useUnits();
  const sections = [...new Set(lines.map((line) => line.section))];
  if (lines.length === 0) return <p className="py-4">Nothing has been measured.</p>;
  return (
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
                      {reading.asLeft ? 'on the way' : 'as found'}
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
                    .filter((f) => ['areaLow', 'tabBend', 'fuelTakenOn', 'drop', 'leak', 'unevenness'].includes(f.key))
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
  );
}
