import { expect, test, type Page } from './test';
import { atStation, fresh, get, note, notes, send } from './bench';

/** A carburetor that is in pieces: a float bowl, or a diaphragm by its stamped number. */
async function stripped(page: Page, stamped = '4107'): Promise<number> {
  const tray = await atStation(page, 'jory', 'strip', fresh('Bath pump'), stamped);
  await note(page, tray, { kind: 'job', job: 'full' });
  const { lines } = await get(page, `/api/trays/${tray}/ledger`);
  await notes(
    page,
    tray,
    (lines as { part: { key: string } }[]).map(({ part }) => ({
      note: { kind: 'out', part: part.key, verdict: 'clean' },
    })),
  );
  return tray;
}

const offer = (page: Page, recipe: string) => page.getByRole('listitem', { name: recipe, exact: true });

test('dirt advises how, and solvent and heat cannot be chosen together', async ({ page }) => {
  const tray = await stripped(page);
  await page.goto(`/tray/${tray}/clean`);
  await page.getByRole('button', { name: 'Varnish' }).click();
  await expect(offer(page, 'Heated bath, water-based').getByText('advised')).toBeVisible();
  await page.getByRole('button', { name: 'Choose it: Petrol and brush' }).click();
  await expect(offer(page, 'Heated bath, water-based').getByText(/can catch fire/)).toBeVisible();
  await expect(offer(page, 'Heated bath, water-based').getByRole('link')).toBeHidden();
  await page.getByRole('button', { name: 'It is done: Petrol and brush' }).click();
  await expect(offer(page, 'Heated bath, water-based').getByText(/can catch fire/)).toBeVisible();
  await page.getByRole('button', { name: 'Rinsed and dry' }).click();
  await expect(offer(page, 'Heated bath, water-based').getByRole('link', { name: 'Into the bath' })).toBeVisible();
});

test('a passage is clear when air has come out, and the tool for each hole is named', async ({ page }) => {
  const tray = await stripped(page);
  await page.goto(`/tray/${tray}/clean/passages`);
  await expect(page.getByText('7 open', { exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Cleaned: Idle feed' }).click();
  await expect(page.getByRole('button', { name: 'Cleaned: Idle feed' })).toHaveAttribute('aria-pressed', 'true');
  await expect(page.getByText('7 open', { exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Air seen at the exit: Idle feed' }).click();
  await expect(page.getByText('6 open', { exact: true })).toBeVisible();
  await page.reload();
  await expect(page.getByText('6 open', { exact: true })).toBeVisible();

  await page.getByRole('link', { name: 'Tools' }).click();
  const idle = page.getByRole('group', { name: 'Idle jet' });
  await expect(idle.getByText('29 gauge', { exact: true })).toBeVisible();
  await expect(idle.getByText('28 gauge wedges')).toBeVisible();
});

test('a float bowl and a diaphragm share a bath that is first too cold; the timer survives a reload', async ({
  page,
}) => {
  const first = await stripped(page);
  const second = await stripped(page, 'D38-2204');
  const bath = page.getByRole('region', { name: 'Heated bath' });
  const temperature = async (shown: string): Promise<void> => {
    await bath.getByLabel('Thermometer shows').fill(shown);
    await bath.getByRole('button', { name: 'Record the temperature' }).click();
  };
  await page.goto(`/tray/${first}/clean/bath`);
  await temperature('hot');
  await expect(bath.getByText(/Give the temperature as a number/)).toBeVisible();
  await temperature('48');
  await expect(bath.getByText('48 °C')).toBeVisible();
  await bath.getByRole('button', { name: new RegExp(`^Tray ${first} into basket`) }).click();
  await expect(bath.getByRole('listitem').filter({ hasText: `Tray ${first}` })).toContainText('too cold');
  await page.goto(`/tray/${second}/clean/bath`);
  await bath.getByRole('button', { name: new RegExp(`^Tray ${second} into basket`) }).click();
  await expect(bath.getByRole('listitem').filter({ hasText: `Tray ${second}` })).toContainText('too cold');

  // Warm enough: both count down, on every page.
  await temperature('80');
  await expect(bath.getByRole('listitem').filter({ hasText: `Tray ${first}` })).toContainText('to go');
  await page.goto('/');
  const calls = page.getByRole('complementary', { name: 'In the baths' });
  await expect(calls.getByRole('link', { name: new RegExp(`Tray ${first} .*to go`) })).toBeVisible();
  const until = async (): Promise<string> => {
    const { baths } = await get(page, '/api/baths');
    return baths[0].state.baskets.find((one: { tray: number }) => one.tray === first).doneAt as string;
  };
  const before = await until();
  await page.reload();
  await expect(calls.getByText(`Tray ${first}`)).toBeVisible();
  expect(Math.abs(Date.parse(await until()) - Date.parse(before))).toBeLessThan(1000);
  await expect(calls.getByRole('link', { name: new RegExp(`Tray ${first} .*to go`) })).toBeVisible({
    timeout: 20_000,
  });

  // Out again: it waits for hands, and has to be rinsed and dried.
  await page.goto('/baths');
  // Long before its time: whether it is clean is asked, and one of them goes in again.
  for (const tray of [first, second]) await bath.getByRole('button', { name: `It is out: tray ${tray}` }).click();
  await bath.getByRole('button', { name: `Goes in again: tray ${second}` }).click();
  await bath.getByRole('button', { name: `It is out: tray ${first}` }).click();
  await bath.getByRole('button', { name: `Clean all the same: tray ${first}` }).click();
  await expect(bath.getByRole('link', { name: `Tray ${first}` })).toBeHidden();
  await page.goto(`/tray/${first}/clean`);
  await expect(page.getByText(/Rinse, blow out and dry before/)).toBeVisible();
  await expect(page.getByRole('listitem', { name: 'Heated bath, water-based' }).getByText('Done')).toBeVisible();
  await page.goto(`/tray/${second}/clean`);
  await expect(page.getByText(/Rinse, blow out and dry before/)).toBeVisible();
  await expect(page.getByRole('listitem', { name: 'Heated bath, water-based' }).getByText('Done')).toBeHidden();
});

test('time that is up calls on an open page', async ({ page }) => {
  const tray = await stripped(page);
  const free = (await get(page, '/api/baths')).baths[1].state.freeBaskets as number[];
  expect(free.length).toBeGreaterThan(0); // no other test uses the tub
  await send(page, '/api/baths/tub/events', { id: crypto.randomUUID(), kind: 'placed', trayNumber: tray });
  await page.goto('/stock');
  const calls = page.getByRole('complementary', { name: 'In the baths' });
  await expect(calls.getByText(`Tray ${tray}`)).toBeVisible();
  // Twelve hours on, by the page's own clock and by what the server says it is.
  await page.route('**/api/baths', async (route) => {
    const answer = await route.fetch();
    const body = await answer.json();
    await route.fulfill({ json: { ...body, now: new Date(Date.parse(body.now) + 12.5 * 3_600_000).toISOString() } });
  });
  // Whoever comes back to the page sees how it is now. A look that is still under way counts for this one too, with
  // the time of before: so the technician comes back until it is seen.
  await expect(async () => {
    await page.evaluate(() => window.dispatchEvent(new Event('visibilitychange')));
    await expect(calls.getByRole('link', { name: new RegExp(`Tray ${tray} .*Time is up`) })).toBeVisible({
      timeout: 2000,
    });
  }).toPass({ timeout: 20_000 });
  // The page keeps its title; the call is seen in it, and heard once.
  await expect(page).toHaveTitle('● Stock, shelf');
  await calls.getByRole('button', { name: 'Heard' }).click();
  await expect(page).toHaveTitle('Stock, shelf');
  await expect(calls.getByRole('link', { name: new RegExp(`Tray ${tray} .*Time is up`) })).toBeVisible();
  await page.unroute('**/api/baths');
  await send(page, '/api/baths/tub/events', { id: crypto.randomUUID(), kind: 'takenOut', trayNumber: tray });
});
