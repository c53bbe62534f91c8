import { expect, test } from './test';
import { atStation, fresh, get, signIn } from './bench';

interface Core {
  Take: (snapshot: string, pending: string, by: string) => string;
  Show: (number: number, page: string) => string | null;
  Judge: (number: number, draft: string) => string | null;
}

/** Page by page, where the server has it and what Core calls it. */
const pages = [
  ['', 'tray'],
  ['/ledger', 'ledger'],
  ['/cleaning', 'cleaning'],
  ['/trace', 'trace'],
  ['/trace?history=false', 'trace-alone'],
] as const;

/** Starts Core in the page, as the page's own worker does. */
const start = async (page: import('@playwright/test').Page): Promise<void> => {
  await page.evaluate(async () => {
    const address = '/core/dotnet.js';
    const { dotnet } = (await import(address)) as {
      dotnet: { create: () => Promise<{ getAssemblyExports: (name: string) => Promise<unknown> }> };
    };
    const { getAssemblyExports } = await dotnet.create();
    const exports = (await getAssemblyExports('BlueDawn.Browser.dll')) as {
      BlueDawn: { Browser: { CoreInTheBrowser: Core } };
    };
    (window as unknown as { core: Core }).core = exports.BlueDawn.Browser.CoreInTheBrowser;
  });
};

/** Pages of a tray on which Core in the browser and the server differ, by as much as one byte. */
const differing = (
  page: import('@playwright/test').Page,
  number: number,
  snapshot: string,
  pending: object[],
  by: string,
) =>
  page.evaluate(
    async ({ number, snapshot, pending, by, pages }) => {
      const { core } = window as unknown as { core: Core };
      const refused = core.Take(snapshot, JSON.stringify(pending), by);
      const found: string[] = refused === '[]' ? [] : [`refused ${refused}`];
      for (const [path, name] of pages) {
        const server = await (await fetch(`/api/trays/${number}${path}`)).text();
        const here = core.Show(number, name) ?? '';
        if (here === server) continue;
        let at = 0;
        while (here[at] === server[at]) at++;
        found.push(`tray ${number}, ${name}: ${here.slice(at - 60, at + 40)} | ${server.slice(at - 20, at + 40)}`);
      }
      return found;
    },
    { number, snapshot, pending, by, pages },
  );

test('the demo shop folded in the browser is the server’s, byte by byte', async ({ page }) => {
  test.setTimeout(120_000);
  await signIn(page, 'jory');
  await start(page);
  const trays = (await get(page, '/api/bench')).trays as { number: number }[];
  const all: string[] = [];
  for (const { number } of trays.filter((one) => one.number <= 40)) {
    const snapshot = await (await page.request.get(`/api/trays/${number}/snapshot`)).text();
    all.push(...(await differing(page, number, snapshot, [], 'Jory Tamblyn')));
  }
  expect(trays.length).toBeGreaterThan(15);
  expect(all).toEqual([]);
});

test('what is still on its way is judged as the server judges it when it has come', async ({ page }) => {
  const tray = await atStation(page, 'jory', 'kit', fresh('Core pump'));
  await start(page);
  const snapshot = await (await page.request.get(`/api/trays/${tray}/snapshot`)).text();
  const now = Date.now();
  const entries = [
    { kind: 'job', job: 'full' },
    { kind: 'out', part: 'bowl-gasket', verdict: 'renew' },
    { kind: 'soils', soils: ['varnish'] },
    {
      kind: 'reading',
      line: 'gauging/main-jet',
      typed: { units: 'metric', values: { go: '0.66', noGo: '0.68' }, rows: [] },
    },
    { kind: 'reading', line: 'setting/float-mass', typed: { units: 'metric', values: { mass: '7.1' }, rows: [] } },
    { kind: 'findings', checkId: null, answers: [{ findingId: 'hunts', said: 'present', doubtful: false }] },
  ].map((note, i) => ({ id: crypto.randomUUID(), takenAt: new Date(now - 6000 + i * 1000).toISOString(), note }));
  const { token } = await get(page, '/api/session');
  const sent = await page.request.post(`/api/trays/${tray}/notes`, {
    data: { entries },
    headers: { 'X-Blue-Dawn-Token': token },
  });
  expect(sent.ok(), await sent.text()).toBe(true);
  const outcomes = (await sent.json()).outcomes as { id: string; outcome: string }[];
  const recorded = entries.filter(({ id }) => outcomes.find((one) => one.id === id)?.outcome === 'recorded');
  expect(recorded.length).toBeGreaterThan(3);
  expect(await differing(page, tray, snapshot, recorded, 'Jory Tamblyn')).toEqual([]);

  // What is being typed is judged the same, without the way there and back.
  const draft = { lineKey: 'gauging/idle-jet', typed: { units: 'metric', values: { go: '0.29' }, rows: [] } };
  const server = await page.request.post(`/api/trays/${tray}/draft`, {
    data: draft,
    headers: { 'X-Blue-Dawn-Token': token },
  });
  const here = await page.evaluate(
    ({ tray, draft }) => (window as unknown as { core: Core }).core.Judge(tray, JSON.stringify(draft)),
    { tray, draft },
  );
  expect(here).toBe(await server.text());
});

test('what the shop knows by itself is known in the browser, byte by byte, and forgotten there when it is taken back', async ({
  page,
}) => {
  test.setTimeout(120_000);
  await signIn(page, 'ilse');
  await start(page);
  const shop = async (path: string, data: object) => {
    const { token } = await get(page, '/api/session');
    const answer = await page.request.post(`/api/shop/knowledge/${path}`, {
      data,
      headers: { 'X-Blue-Dawn-Token': token },
    });
    expect(answer.ok(), await answer.text()).toBe(true);
  };
  const change = async (table: string, key: string, column: string, cell: string) => {
    const { version, columns, rows } = (await get(page, `/api/shop/knowledge/table?name=${table}`)) as {
      version: number;
      columns: string[];
      rows: { key: string; cells: string[] }[];
    };
    const cells = [...(rows.find((row) => row.key === key)?.cells ?? [])];
    cells[columns.indexOf(column)] = cell;
    await shop('accept', { act: 'write', was: version, table, key, cells, why: 'tried' });
  };
  await change('faults/causes.csv', 'fuel-stale', 'prior_weight', '0.02');
  await change('cleaning/recipes.csv', 'soap', 'minutes', '25.5');
  await change('strip/parts.csv', 'F bowl', 'remind', 'Ours: mind the “ö” in it, and “quotes".');
  const { trays } = (await get(page, '/api/bench')) as { trays: { number: number; waitsFor: string }[] };
  const some = trays.filter((one) => one.number <= 40 && one.waitsFor !== 'handedBack').slice(0, 6);
  const all: string[] = [];
  const again = async () => {
    for (const { number } of some) {
      const snapshot = await (await page.request.get(`/api/trays/${number}/snapshot`)).text();
      all.push(...(await differing(page, number, snapshot, [], 'Ilse Brandt')));
    }
  };
  await again();
  const { version } = await get(page, '/api/shop/knowledge');
  await shop('accept', { act: 'goBack', version: 0, was: version, why: 'tried' });
  await again();
  expect(all).toEqual([]);
});
