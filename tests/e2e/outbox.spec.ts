import { expect, test } from './test';
import { atStation, box, expectVerdict, fresh, line } from './bench';
import { freePort, OwnServer } from './machine';

test('the server is killed and started again: nothing typed is lost, and nothing is recorded twice', async ({
  browser,
  server: shared,
}) => {
  test.setTimeout(120_000);
  const server = new OwnServer(await freePort(), shared.database);
  await server.start();
  try {
    const context = await browser.newContext({ baseURL: server.url, viewport: { width: 1280, height: 800 } });
    const page = await context.newPage();
    const tray = await atStation(page, 'jory', 'kit', fresh('Plug pump'));
    await page.goto(`${server.url}/tray/${tray}/gauge`);
    await expect(box(page, 'Main jet', 'goes')).toBeVisible();

    await server.stop();
    await box(page, 'Main jet', 'goes').fill('0.71');
    await box(page, 'Main jet', 'stops').fill('0.73');
    await page.keyboard.press('Enter');
    await expect(page.getByText('1 entry is kept on this device')).toBeVisible();
    await expect(box(page, 'Idle jet', 'goes')).toBeFocused(); // the work goes on
    await page.keyboard.type('0.32');
    await page.keyboard.press('Enter');
    await page.keyboard.type('0.34');
    await page.keyboard.press('Enter');
    await expect(page.getByText('2 entries are kept on this device')).toBeVisible();
    await box(page, 'Row 1', 'open').fill('4'); // typed and not recorded

    await server.start();
    await expect(page.getByText(/entr(ies are|y is) kept on this device/)).toBeHidden({ timeout: 20_000 });
    await expectVerdict(page, 'Main jet', 'In gauge');
    await expectVerdict(page, 'Idle jet', 'In gauge');
    await expect(box(page, 'Row 1', 'open')).toHaveValue('4');
    const seen = await (await page.request.get(`/api/trays/${tray}`)).json();
    expect(seen.logbook.filter((entry: { kind: string }) => entry.kind === 'reading')).toHaveLength(2);
    await context.close();
  } finally {
    await server.stop();
  }
});

test('a slip typed while the network is gone comes back into its boxes with the question', async ({
  page,
  context,
}) => {
  await atStation(page, 'jory', 'gauge', fresh('Slip pump'));
  await expect(
    box(page, 'Idle jet', 'bore')
      .or(box(page, 'Idle jet', 'goes'))
      .first(),
  ).toBeVisible();
  await context.setOffline(true);
  await box(page, 'Idle jet', 'goes').fill('3.2');
  await box(page, 'Idle jet', 'stops').fill('3.4');
  await page.keyboard.press('Enter');
  await expect(page.getByText('1 entry is kept on this device')).toBeVisible();
  await expect(box(page, 'Idle jet', 'goes')).toHaveValue('');
  await context.setOffline(false);
  await expect(box(page, 'Idle jet', 'goes')).toHaveValue('3.2', { timeout: 20_000 });
  await expect(line(page, 'Idle jet').getByRole('group', { name: 'Far from the sheet' }).first()).toBeVisible();
  await page.reload();
  await expect(box(page, 'Idle jet', 'stops')).toHaveValue('3.4');
});

test('readings kept on the device survive a reload and go out when the way is clear', async ({ page }) => {
  await atStation(page, 'jory', 'gauge', fresh('Kept pump'));
  await page.route('**/notes', (route) => route.abort());
  await box(page, 'Main jet', 'goes').fill('0.71');
  await box(page, 'Main jet', 'stops').fill('0.73');
  await page.keyboard.press('Enter');
  await expect(page.getByText('1 entry is kept on this device')).toBeVisible();
  await page.reload();
  await expect(page.getByText('1 entry is kept on this device')).toBeVisible();
  await page.unroute('**/notes');
  await expect(page.getByText(/entr(ies are|y is) kept on this device/)).toBeHidden({ timeout: 15_000 });
  await expectVerdict(page, 'Main jet', 'In gauge');
});
