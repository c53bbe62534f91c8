import { freePort, Upgrade } from './machine';
import { expect, test } from './test';
import { box, checkIn, expectVerdict, fresh, get, line, signIn, stocked } from './bench';

// What stays on the device between two visits, and what a server that is away leaves to look at.
test.use({ serviceWorkers: 'allow' });

/** Until the program and the trays on the bench are on the device. */
async function atHand(page: import('@playwright/test').Page, tray: number): Promise<void> {
  await page.goto('/');
  await page.waitForFunction(() => navigator.serviceWorker.controller !== null, undefined, { timeout: 30_000 });
  await page.reload();
  await expect
    .poll(
      () =>
        page.evaluate(
          async (number) =>
            (await (await caches.open('answers')).match(`/api/trays/${number}/trace?history=true`)) !== undefined,
          tray,
        ),
      { timeout: 45_000 },
    )
    .toBe(true);
}

test('a whole tray without the server: opened, reloaded, every station worked, sent once when it is back, handed back', async ({
  browser,
  server,
}) => {
  test.setTimeout(420_000);
  const context = await browser.newContext({
    baseURL: server.url,
    viewport: { width: 1280, height: 800 },
    serviceWorkers: 'allow',
  });
  const page = await context.newPage();
  await signIn(page, 'jory');
  const machine = fresh('Lamp boat');
  await stocked(page, 'OK-118');
  const tray = await checkIn(page, machine, '3088-A');
  await page.goto(`/tray/${tray}/kit`);
  await page.getByRole('button', { name: 'Choose it: OK-118', exact: true }).click();
  await expect(page.getByText('Chosen for this tray')).toBeVisible();
  await atHand(page, tray);

  await context.setOffline(true);
  await page.goto('/');
  await expect(page.getByRole('heading', { name: /at the bench$/ })).toBeVisible();
  await expect(page.getByText('The server does not answer.').first()).toBeVisible();
  const record = (label: string): Promise<void> => page.getByRole('button', { name: `Record ${label}` }).click();
  const kept = (count: number) =>
    expect(page.getByText(count === 1 ? '1 entry is kept' : `${count} entries are kept`)).toBeVisible();
  const station = (name: string): Promise<void> =>
    page
      .getByRole('navigation', { name: 'Stations' })
      .getByRole('link', { name: new RegExp(`^${name}`) })
      .click();

  // Strip: fourteen parts out. The ledger goes on as each is kept.
  await page.goto(`/tray/${tray}/strip`);
  await page.getByRole('button', { name: 'Take this: Full strip' }).click();
  await page.getByRole('button', { name: /^All 5 out, as usual/ }).click();
  for (const part of [
    'bowl nut with washer',
    'bowl',
    'bowl gasket',
    'float with hinge pin',
    'inlet needle',
    'inlet seat',
  ]) {
    await page.getByRole('button', { name: `It is out: ${part}`, exact: true }).click();
    // Which way round is gone once it is out: it is asked for once.
    if (part === 'bowl' || part === 'inlet seat')
      await page.getByRole('button', { name: 'Not seen which way' }).click();
  }
  const last = page.getByRole('button', { name: /^All 3 out, as usual/ });
  await expect(last).toHaveCount(1);
  await last.click();
  await expect(page.getByRole('link', { name: 'Strip all out' })).toBeVisible();
  await kept(15);

  // Clean: what is on it, how it came off, and air seen at every exit.
  await page.goto(`/tray/${tray}/clean`);
  await page.getByRole('button', { name: 'Varnish' }).click();
  await page.getByRole('button', { name: 'Choose it: Petrol and brush' }).click();
  await page.getByRole('button', { name: 'It is done: Petrol and brush' }).click();
  await page.getByRole('button', { name: 'Rinsed and dry' }).click();
  await kept(15 + 4);
  await page.goto(`/tray/${tray}/clean/passages`);
  const unseen = page.getByRole('button', {
    name: /^Air seen at the exit/,
    pressed: false,
  });
  await expect(unseen.first()).toBeVisible();
  const passages = await unseen.count();
  expect(passages).toBeGreaterThan(3);
  for (let open = passages; open > 0; open--) {
    await unseen.first().click();
    await expect(unseen).toHaveCount(open - 1);
  }
  await expect(page.getByText('all clear')).toBeVisible();
  const before = 15 + 4 + passages;
  await kept(before);

  // Every line of the tray, judged by Core in the browser; a reload in the middle.
  await page.goto(`/tray/${tray}/gauge`);
  await box(page, 'Main jet', 'goes').fill('0.572');
  await box(page, 'Main jet', 'stops').fill('0.588');
  await record('Main jet');
  await kept(before + 1);
  await page.reload();
  await kept(before + 1);
  await expectVerdict(page, 'Main jet', 'In gauge');
  // What cannot be read is said at once, not when the server is back.
  await box(page, 'Idle jet', 'goes').fill('abc');
  await page.waitForTimeout(600);
  await record('Idle jet');
  await expect(line(page, 'Idle jet').getByRole('alert')).toHaveText(/is not a number/);
  await kept(before + 1);
  await box(page, 'Idle jet', 'goes').fill('11.4 thou');
  await box(page, 'Idle jet', 'stops').fill('.0122 in');
  // The verdict first: it moves the button, and a press that meets the move is no press.
  await expectVerdict(page, 'Idle jet', 'In gauge');
  await record('Idle jet');
  await kept(before + 2);
  for (const [i, row, go, stop] of [
    [3, 'Row 1', '0.49', '0.51'],
    [4, 'Row 2', '0.59', '0.61'],
  ] as const) {
    await box(page, row, 'open').fill('4');
    await box(page, row, 'goes').fill(go);
    await box(page, row, 'stops').fill(stop);
    await expectVerdict(page, row, 'In gauge');
    await record(row);
    await kept(before + i);
  }
  await station('Set');
  await box(page, 'Float mass', 'mass').fill('4.8');
  await expectVerdict(page, 'Float mass', 'Dry');
  await record('Float mass');
  await kept(before + 5);
  for (const angle of [0, 120, 240]) await page.getByLabel(`Float height at ${angle}°`).fill('12.0');
  await expectVerdict(page, 'Float height', 'Level');
  await record('Float height');
  await kept(before + 6);
  for (const at of [2, 7, 12]) await page.getByLabel(`Hold test at ${at} s`).fill('48');
  await expectVerdict(page, 'Hold test', 'Held');
  await record('Hold test');
  await kept(before + 7);

  // Build: the ledger walked backwards, by what Core says goes in next.
  await station('Build');
  const form = page.getByRole('group', { name: /^Fit: / });
  for (let left = 14; left > 0; left--) {
    const part = (await form.getAttribute('aria-label')) ?? '';
    const right = form.getByRole('radio').first();
    if (await right.isVisible()) await right.click();
    const refit = form.getByRole('button', {
      name: 'The old one is in',
      exact: true,
    });
    if (await refit.isVisible()) {
      // Found no good at Strip: what the rules ask for is asked without the server too.
      if (left > 10) {
        await refit.click();
        // Core folds three dozen waiting entries first: on a loaded machine that takes its time.
        await expect(form.getByText('At Strip it was found to be no good. Say why the old one goes back.')).toBeVisible(
          { timeout: 45_000 },
        );
      }
      await form.getByLabel('Reason or remark').fill('No new one before the boat goes out');
    }
    await form
      .getByRole('button', { name: /^(It is in|The old one is in)$/ })
      .or(form.getByRole('button', { name: 'Made one' }))
      .first()
      .click();
    // Core folds all that waits once more for each part: only what hangs is ended here.
    await expect(page.getByRole('group', { name: part, exact: true })).toBeHidden({ timeout: 60_000 });
  }
  await expect(page.getByText('All parts are in.')).toBeVisible();
  await kept(before + 7 + 14);

  await station('Prove');
  await box(page, 'Fuel on, rocked', 'minutes').fill('4');
  await line(page, 'Fuel on, rocked').getByRole('radio', { name: 'Rocked', exact: true }).click();
  await line(page, 'Fuel on, rocked').getByRole('radio', { name: 'Dry' }).click();
  await record('Fuel on, rocked');
  await expectVerdict(page, 'Fuel on, rocked', 'Dry');
  await box(page, 'Governed speed', 'rpm').fill('3000');
  await record('Governed speed');
  // What was recorded moves what stands below it: a press that meets the move is no press.
  await expectVerdict(page, 'Governed speed', 'In window');
  await kept(before + 7 + 14 + 2);
  const gone = line(page, '“Hunts when warm”').getByRole('radio', { name: 'Gone', exact: true });
  await gone.click();
  await expect(gone).toBeChecked();
  await record('“Hunts when warm”');
  await expectVerdict(page, '“Hunts when warm”', 'Gone');
  const all = before + 7 + 14 + 3;
  await kept(all);

  // What needs the shop as a whole says so.
  await station('Hand back');
  await page.getByRole('button', { name: 'Hand it back' }).click();
  await expect(page.getByText(/server/).last()).toBeVisible();

  // A check-in without the server gets its number later.
  await page.goto('/check-in');
  await page.getByRole('combobox', { name: 'Owner' }).fill('Boat Tern');
  const second = fresh('Winch');
  await page.getByRole('combobox', { name: 'Machine' }).fill(second);
  await page.getByLabel('Stamped number').fill('4107');
  await page.getByLabel('What the owner says').fill('Stalls');
  await page.getByRole('button', { name: 'Give it a tray' }).click();
  await expect(page.getByText(`Checked in on this device: ${second}`)).toBeVisible();
  await kept(all + 1);

  // The browser is closed and opened again, still without the server.
  await page.close();
  const later = await context.newPage();
  await later.goto('/');
  await expect(later.getByText(`${all + 1} entries are kept on this device`)).toBeVisible();

  await context.setOffline(false);
  await expect(later.getByText(/kept on this device/)).toBeHidden({
    timeout: 30_000,
  });
  await expect(later.getByRole('link', { name: new RegExp(second) }).first()).toBeVisible({ timeout: 20_000 });
  await later.goto(`/tray/${tray}/gauge`);
  await expectVerdict(later, 'Main jet', 'In gauge');
  await expectVerdict(later, 'Idle jet', 'In gauge');
  await later.goto(`/tray/${tray}/prove`);
  await expectVerdict(later, 'Fuel on, rocked', 'Dry');
  const seen = await get(later, `/api/trays/${tray}`);
  expect(seen.logbook.filter((entry: { kind: string }) => entry.kind === 'reading')).toHaveLength(10);
  expect(seen.logbook.filter((entry: { kind: string }) => entry.kind === 'back')).toHaveLength(14);
  const trays = (await get(later, '/api/bench')).trays as {
    machineName: string;
  }[];
  expect(trays.filter((one) => one.machineName === second)).toHaveLength(1);
  await later.goto(`/tray/${tray}/hand-back`);
  await later.getByRole('button', { name: 'Hand it back' }).click();
  await expect(later.getByText('Handed back.', { exact: true }).first()).toBeVisible();
  await context.close();
});

test('what one person took without the server is not signed by another who signs in beside them', async ({
  browser,
  server,
}) => {
  test.setTimeout(120_000);
  const context = await browser.newContext({
    baseURL: server.url,
    viewport: { width: 1280, height: 800 },
  });
  const first = await context.newPage();
  await signIn(first, 'jory');
  const tray = await checkIn(first, fresh('Twin pump'));
  await first.goto(`/tray/${tray}/gauge`);
  await first.route('**/notes', (route) => route.abort());
  await box(first, 'Main jet', 'goes').fill('0.71');
  await box(first, 'Main jet', 'stops').fill('0.73');
  await first.keyboard.press('Enter');
  await expect(first.getByText('1 entry is kept on this device')).toBeVisible();

  // Marit signs in in a second tab: the cookie of both tabs is hers now.
  const second = await context.newPage();
  await second.goto('/');
  await second.getByRole('button', { name: 'Sign out' }).first().click();
  await second.getByLabel('Name').fill('marit');
  await second.getByLabel('Password').fill('sandrigg-quay');
  await second.keyboard.press('Enter');
  await expect(second.getByRole('heading', { name: /at the bench$/ })).toBeVisible();
  await first.unroute('**/notes');
  await first.waitForTimeout(5_000);
  const after = await get(second, `/api/trays/${tray}`);
  expect(after.logbook.filter((entry: { kind: string }) => entry.kind === 'reading')).toHaveLength(0);
  await expect(second.getByText('1 here wait for someone else to sign in')).toBeVisible();

  // Jory signs in again, and it goes out as his.
  await second.getByRole('button', { name: 'Sign out' }).first().click();
  await second.getByLabel('Name').fill('jory');
  await second.getByLabel('Password').fill('sandrigg-quay');
  await second.keyboard.press('Enter');
  await expect(second.getByRole('heading', { name: /at the bench$/ })).toBeVisible();
  await expect
    .poll(
      async () =>
        (await get(second, `/api/trays/${tray}`)).logbook.find((e: { kind: string }) => e.kind === 'reading')?.by,
      {
        timeout: 20_000,
      },
    )
    .toBe('Jory Tamblyn');
  await context.close();
});

test('a newer version says that it is there, and takes its place only when it is asked to', async ({
  browser,
  server,
}) => {
  test.setTimeout(150_000);
  const upgrade = new Upgrade(await freePort(), server.port);
  const context = await browser.newContext({ baseURL: upgrade.url, serviceWorkers: 'allow' });
  try {
    const page = await context.newPage();
    await signIn(page, 'jory');
    await page.waitForFunction(() => navigator.serviceWorker.controller !== null, undefined, { timeout: 30_000 });
    const tray = await checkIn(page, fresh('Newer pump'));
    await page.goto(`/tray/${tray}/gauge`);
    await box(page, 'Main jet', 'goes').fill('0.71');
    const said = page.getByText('A newer version of Blue Dawn is here.');
    await expect(said).toBeHidden();

    upgrade.appended = '\n// a newer version\n';
    await page.evaluate(async () => (await navigator.serviceWorker.getRegistration())?.update());
    await expect(said).toBeVisible({ timeout: 20_000 });
    // It waits until it is asked to.
    await box(page, 'Main jet', 'stops').fill('0.73');
    // A busy old worker may still be there after the page has been loaded anew: it is offered again, and taken.
    await expect(async () => {
      const load = page.getByRole('button', { name: 'Load it' });
      if (await load.isVisible()) await load.click({ timeout: 2_000 });
      await expect(said).toBeHidden({ timeout: 12_000 });
      await page.waitForTimeout(1_500);
      await expect(said).toBeHidden({ timeout: 100 });
    }).toPass({ timeout: 75_000 });
    await expect(box(page, 'Main jet', 'goes')).toHaveValue('0.71');
    await expect(box(page, 'Main jet', 'stops')).toHaveValue('0.73');
  } finally {
    await context.close();
    upgrade.stop();
  }
});

test.describe(() => {
  test.use({ serviceWorkers: 'block' });
  test('a part of the program that is gone is said so, and is there again when it is', async ({ page }) => {
    await signIn(page, 'jory');
    await page.route('**/assets/StockPage*', (route) => route.abort());
    await page.getByRole('link', { name: 'Stock', exact: true }).click();
    await expect(page.getByText('This page cannot be loaded.')).toBeVisible({
      timeout: 20_000,
    });
    // The rest is there.
    await page.getByRole('link', { name: 'Bench', exact: true }).click();
    await expect(page.getByRole('heading', { name: /at the bench$/ })).toBeVisible();
    await page.unroute('**/assets/StockPage*');
    await page.getByRole('link', { name: 'Stock', exact: true }).click();
    await expect(
      page.getByRole('button', { name: 'Load it again' }).or(page.getByText('Order when the pieces')),
    ).toBeVisible();
  });
});
