import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { v7 as uuidv7 } from 'uuid';
import { api, ask, type SheetForm, type SheetIssue } from '../api/client';
import { useWrite } from '../api/useWrite';
import { sendEntries } from '../outbox/outbox';
import { useAllowed, useUnits } from '../session/session';
import { keys } from '../api/keys';
import { useTitle } from '../shell/title';
import { moment } from '../units/format';
import { Button, LinkButton } from '../ui/button';
import { Card } from '../ui/card';
import { SelectField } from '../ui/field';
import { Loading, Notice, Trouble } from '../ui/states';
import { useSheetForm } from './useSheetForm';
import { linesOf } from './sheetFields';

/** Trays that are judged by an older issue, and the way to the newest for all of them. */
function StillBy({ issue, newest }: { issue: SheetIssue; newest: number | null }) {
  const { code, issue: old } = issue.sheet;
  const mayMove = useAllowed('workAtTheBench');
  const move = useWrite(
    async () => {
      // One after the other: each is decided on what stands on its tray now, and says so when somebody was quicker.
      for (const number of issue.trays) {
        const path = { params: { path: { number } } };
        const { version } = await ask(api.GET('/api/trays/{number}', path));
        const note = { kind: 'sheet' as const, specCode: code };
        await sendEntries(number, [{ id: uuidv7(), takenAt: new Date().toISOString(), note, version }]);
      }
    },
    { changes: [keys.sheets, keys.sheet(code), ['tray'], keys.bench] },
  );
  return (
    <Notice tone="unsure" title={`Still judged by issue ${old}`}>
      <p>
        {issue.trays.map((number) => (
          <Link key={number} className="mr-3 underline underline-offset-4" to={`/tray/${number}/kit`}>
            Tray {number}
          </Link>
        ))}
        What was read stays as it was read.
      </p>
      {move.problem && <p className="text-bad font-medium">{move.problem.title}</p>}
      {mayMove && newest !== null && (
        <Button disabled={move.busy} onClick={() => void move.run()}>
          {issue.trays.length === 1 ? 'Judge it' : `Judge all ${issue.trays.length}`} by issue {newest}
        </Button>
      )}
    </Notice>
  );
}

/** One spec sheet: what it says, every issue of it, and another laid beside it. */
export function SheetPage() {
  const { code = '' } = useParams();
  useTitle(`Sheet ${code}`);
  const queries = useQueryClient();
  const [mayMake, mayRetire] = [useAllowed('makeSheets'), useAllowed('manageShop')];
  const [beside, setBeside] = useState('');
  const issues = useQuery({
    queryKey: keys.sheet(code),
    queryFn: () => ask(api.GET('/api/sheets/{code}', { params: { path: { code } } })),
  });
  const sheets = useQuery({ queryKey: keys.sheets, queryFn: () => ask(api.GET('/api/sheets')) });
  const [otherCode = '', otherIssue] = beside.split(' ');
  const other = useQuery({
    queryKey: keys.sheet(otherCode),
    queryFn: () => ask(api.GET('/api/sheets/{code}', { params: { path: { code: otherCode } } })),
    enabled: otherCode !== '',
  });
  const take = (now: SheetIssue[]): void => {
    queries.setQueryData(keys.sheet(code), now);
    void queries.invalidateQueries({ queryKey: keys.sheets, exact: true });
  };
  const path = { params: { path: { code } } };
  const retire = useWrite(() => ask(api.DELETE('/api/sheets/{code}', path)), { done: take });
  const again = useWrite(() => ask(api.POST('/api/sheets/{code}/again', path)), { done: take });
  const form = useSheetForm();
  if (issues.isPending || form.isPending) return <Loading what="the sheet" />;
  const [latest] = issues.data ?? [];
  if (!issues.data || !latest || !form.data)
    return (
      <Trouble error={issues.error ?? form.error} retry={() => void issues.refetch()}>
        <LinkButton to="/sheets">All the sheets</LinkButton>
      </Trouble>
    );
  const shown = issues.data.find((issue) => issue.current) ?? latest;
  const retired = !issues.data.some((issue) => issue.current);
  const laid = other.data?.find((issue) => String(issue.sheet.issue) === otherIssue) ?? other.data?.[0];
  const old = issues.data.filter((issue) => !issue.current && issue.trays.length > 0);
  const problem = retire.problem ?? again.problem;
  return (
    <div className="grid max-w-5xl gap-4 p-3 lg:px-5">
      <header className="flex flex-wrap items-center justify-between gap-3">
        <div>
          <h1 className="text-heading leading-tight">
            Sheet <span className="num">{code}</span>
          </h1>
          <p className="text-mute">
            Issue {shown.sheet.issue}
            {retired && ', retired: it is not offered any more'}
          </p>
        </div>
        <span className="flex flex-wrap gap-2">
          {mayMake && (
            <LinkButton look="hands" to={`/sheets/${code}/issue`}>
              Correct it
            </LinkButton>
          )}
          {mayMake && <LinkButton to={`/sheets/new?copy=${code}`}>Copy</LinkButton>}
          {mayRetire && (
            <Button disabled={retire.busy || again.busy} onClick={() => void (retired ? again.run() : retire.run())}>
              {retired ? 'Offer it again' : 'Retire'}
            </Button>
          )}
        </span>
      </header>
      {problem && <Notice title={problem.title}>{problem.detail}</Notice>}
      {old.map((issue) => (
        <StillBy key={issue.sheet.issue} issue={issue} newest={retired ? null : shown.sheet.issue} />
      ))}
      <Card label={`What ${code} says`} className="grid gap-3">
        <SelectField
          label="Beside it"
          className="max-w-64"
          value={beside}
          onChange={(event) => setBeside(event.target.value)}
        >
          <option value="">nothing</option>
          {issues.data
            .filter((issue) => issue !== shown)
            .map((issue) => (
              <option key={issue.sheet.issue} value={`${code} ${issue.sheet.issue}`}>
                {code}, issue {issue.sheet.issue}
              </option>
            ))}
          {(sheets.data ?? [])
            .filter((sheet) => sheet.code !== code)
            .map((sheet) => (
              <option key={sheet.code} value={sheet.code}>
                {sheet.code}
              </option>
            ))}
        </SelectField>
        <Beside form={form.data} mine={shown} other={laid ?? null} />
      </Card>
      <Card label="Issues" title="Issues" pad="rows" className="block">
        <ol>
          {issues.data.map((issue) => (
            <li key={issue.sheet.issue} className="border-line flex flex-wrap gap-x-4 border-t py-2">
              <span className="num font-bold">{issue.sheet.issue}</span>
              <span className="min-w-0 flex-1">{issue.why || (issue.madeBy ? 'Made' : 'Came with the shop')}</span>
              <span className="text-mute text-note">
                {issue.madeBy} {issue.madeAt && moment(issue.madeAt)}
              </span>
            </li>
          ))}
        </ol>
      </Card>
    </div>
  );
}

/** What a sheet says, line by line; where another lies beside it, what differs stands out. */
function Beside({ form, mine, other }: { form: SheetForm; mine: SheetIssue; other: SheetIssue | null }) {
  const units = useUnits();
  const lines = linesOf(mine, form, units);
  const theirs = new Map(other ? linesOf(other, form, units) : []);
  const rows = [
    ...lines,
    ...[...theirs]
      .filter(([label]) => !lines.some(([known]) => known === label))
      .map(([label]) => [label, ''] as const),
  ];
  return (
    <table className="w-full">
      <thead className={other ? '' : 'sr-only'}>
        <tr className="text-mute text-left text-note">
          <th className="font-medium">What</th>
          <th className="font-medium">
            {mine.sheet.code}, issue {mine.sheet.issue}
          </th>
          {other && (
            <th className="font-medium">
              {other.sheet.code}, issue {other.sheet.issue}
            </th>
          )}
        </tr>
      </thead>
      <tbody>
        {rows.map(([label, value]) => {
          const differs = other !== null && (theirs.get(label) ?? '') !== value;
          return (
            <tr key={label} className="border-line border-t align-top">
              <th className="text-mute py-1.5 pr-4 text-left font-medium first-letter:uppercase">{label}</th>
              <td className={`py-1.5 pr-4 ${differs ? 'font-heavy' : ''}`}>{value || '–'}</td>
              {other && <td className={`py-1.5 ${differs ? 'font-heavy' : ''}`}>{theirs.get(label) ?? '–'}</td>}
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
