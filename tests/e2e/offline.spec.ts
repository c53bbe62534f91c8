import { expect, test } from './test';
import { box, checkIn, expectVerdict, fresh, get, line, signIn } from './bench';

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

test('a whole stretch of work without the server: opened, reloaded, entered, and sent once when it is back', async ({
  browser,
  server,
}) => {
  test.setTimeout(180_000);
  const context = await browser.newContext({
    baseURL: server.url,
    viewport: { width: 1280, height: 800 },
    serviceWorkers: 'allow',
  });
  const page = await context.newPage();
  await signIn(page, 'jory');
  const machine = fresh('Lamp boat');
  const tray = await checkIn(page, machine);
  await atHand(page, tray);

  await context.setOffline(true);
  await page.goto('/');
  await expect(page.getByRole('heading', { name: /at the bench$/ })).toBeVisible();
  await expect(page.getByText('The server does not answer.').first()).toBeVisible();
  await page.goto(`/tray/${tray}/gauge`);
  await box(page, 'Main jet', 'goes').fill('0.71');
  await box(page, 'Main jet', 'stops').fill('0.73');
  await page.keyboard.press('Enter');
  await expect(page.getByText('1 entry is kept on this device')).toBeVisible();
  await page.reload();
  await expect(page.getByText('1 entry is kept on this device')).toBeVisible();
  // The verdict is Core's own, in the browser: the tray counts what is still on its way.
  await expectVerdict(page, 'Main jet', 'In gauge');
  await box(page, 'Idle jet', 'goes').fill('0.32');
  await box(page, 'Idle jet', 'stops').fill('0.34');
  await page.keyboard.press('Enter');
  await expect(page.getByText('2 entries are kept on this device')).toBeVisible();
  await expectVerdict(page, 'Idle jet', 'In gauge');
  await page.getByRole('link', { name: 'Prove' }).first().click();
  await expect(line(page, 'Governed speed')).toBeVisible();

  // A check-in without the server gets its number later.
  await page.goto('/check-in');
  await page.getByRole('combobox', { name: 'Owner' }).fill('Boat Tern');
  const second = fresh('Winch');
  await page.getByRole('combobox', { name: 'Machine' }).fill(second);
  await page.getByLabel('Stamped number').fill('4107');
  await page.getByLabel('What the owner says').fill('Stalls');
  await page.getByRole('button', { name: 'Give it a tray' }).click();
  await expect(page.getByText(`Checked in on this device: ${second}`)).toBeVisible();
  await expect(page.getByText('3 entries are kept on this device')).toBeVisible();

  // The browser is closed and opened again, still without the server.
  await page.close();
  const later = await context.newPage();
  await later.goto('/');
  await expect(later.getByText('3 entries are kept on this device')).toBeVisible();

  await context.setOffline(false);
  await expect(later.getByText(/kept on this device/)).toBeHidden({ timeout: 30_000 });
  await expect(later.getByRole('link', { name: new RegExp(second) }).first()).toBeVisible({ timeout: 20_000 });
  await later.goto(`/tray/${tray}/gauge`);
  await expectVerdict(later, 'Main jet', 'In gauge');
  await expectVerdict(later, 'Idle jet', 'In gauge');
  await expect(line(later, 'Main jet')).toBeVisible();
  const seen = await get(later, `/api/trays/${tray}`);
  expect(seen.logbook.filter((entry: { kind: string }) => entry.kind === 'reading')).toHaveLength(2);
  const trays = (await get(later, '/api/bench')).trays as { machineName: string }[];
  expect(trays.filter((one) => one.machineName === second)).toHaveLength(1);
  await context.close();
});

test('what one person took without the server is not signed by another who signs in beside them', async ({
  browser,
  server,
}) => {
  test.setTimeout(120_000);
  const context = await browser.newContext({ baseURL: server.url, viewport: { width: 1280, height: 800 } });
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
