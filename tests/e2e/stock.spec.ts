import { readFile } from 'node:fs/promises';
import { expect, test, type Page } from './test';
import { atStation, fresh, signIn } from './bench';

const row = (page: Page, item: string) => page.getByRole('row').filter({ hasText: item });

test('stock falls to its reorder point, is ordered, and comes in', async ({ page }) => {
  await signIn(page, 'jory', '/stock');
  await expect(row(page, 'ND-01')).toContainText('Enough');
  await page.getByRole('button', { name: /^ND-01 .*: its moves$/ }).click();
  const dialog = page.getByRole('dialog', { name: /^ND-01/ });
  const book = async (what: string, pieces: string): Promise<void> => {
    await dialog.getByRole('radio', { name: what, exact: true }).click();
    await dialog.getByLabel('Pieces').fill(pieces);
    await dialog.getByRole('button', { name: 'Book it' }).click();
  };
  await book('Fitted', '9');
  await expect(
    dialog.getByText('Only 2 on hand by the book. Count the shelf and set the book right first.'),
  ).toBeVisible();
  await book('Fitted', 'some');
  await expect(dialog.getByText('Give how many, from 1 to 9999.')).toBeVisible();
  await book('Fitted', '1');
  await expect(dialog.getByText('1 on hand, 0 on order')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(row(page, 'ND-01')).toContainText('Order now');
  await page.getByRole('button', { name: /^ND-01 .*: its moves$/ }).click();
  await book('Ordered', '4');
  await expect(dialog.getByText('1 on hand, 4 on order')).toBeVisible();
  await book('Received', '4');
  await expect(dialog.getByText('5 on hand, 0 on order')).toBeVisible();
  await dialog.getByRole('radio', { name: 'Counted' }).click();
  await dialog.getByLabel('Shelf holds').fill('2');
  await dialog.getByRole('button', { name: 'Book it' }).click();
  await expect(dialog.getByText('2 on hand, 0 on order')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(row(page, 'ND-01')).toContainText('Enough');
});

test('what open trays need is bought together; ordered, it is not bought again; come, it is taken', async ({
  page,
}) => {
  const tray = await atStation(page, 'jory', 'kit', fresh('Ferry pump'), 'V110');
  await page
    .getByRole('button', { name: /^Choose it.*: VY-\d+$/ })
    .first()
    .click();
  await expect(page.getByText(/Chosen for this tray: kit .* to order: VY-/)).toBeVisible();
  const item = (await page
    .getByText(/to order: VY-\d+/)
    .first()
    .textContent())!.match(/VY-\d+/)![0];
  await page.goto('/stock/buying');
  await expect(page.getByText(/saved against ordering one by one/)).toBeVisible();
  const line = row(page, item).filter({ hasText: `tray ${tray}` });
  await expect(line).toBeVisible();
  const order = page.getByRole('region').filter({ has: line });
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    order.getByRole('link', { name: 'Order list (CSV)' }).click(),
  ]);
  const list = await readFile(await download.path(), 'utf8');
  expect(list.split('\r\n')[0]).toBe('supplier,item,name,packs,pieces,pack_price,price,lead_days,trays');
  expect(list).toMatch(new RegExp(`,${item},.*,${tray}`));
  expect(download.suggestedFilename()).toMatch(/^order-[a-z-]+-\d{4}-\d\d-\d\d\.csv$/);
  await order.getByRole('button', { name: 'It is ordered' }).click();
  await expect(line).toHaveCount(0);

  await page.goto(`/tray/${tray}/kit`);
  await page.getByRole('button', { name: 'It has come: take it' }).click();
  await expect(page.getByText(`Not on the shelf yet: ${item}. Book it in at Stock first.`)).toBeVisible();
  await page.goto('/stock');
  await page.getByRole('button', { name: new RegExp(`^${item} .*: its moves$`) }).click();
  await page.getByRole('dialog').getByRole('radio', { name: 'Received' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Book it' }).click();
  await expect(page.getByRole('dialog').getByText('1 on hand, 0 on order')).toBeVisible();
  await page.goto(`/tray/${tray}/kit`);
  await page.getByRole('button', { name: 'Take it', exact: true }).click();
  await expect(page.getByText(/taken from the shelf/).first()).toBeVisible();
  await expect(page.getByText('Waits for hands')).toBeVisible();
});

test('an import with a wrong row is rejected, put right it is taken', async ({ page }) => {
  await signIn(page, 'ilse', '/stock/catalogue');
  const send = (text: string) =>
    page
      .getByLabel('Import items')
      .setInputFiles({ name: 'spring.csv', mimeType: 'text/csv', buffer: Buffer.from(text) });
  const report = page.getByRole('region', { name: 'Import' });
  await send('number,kind,name,maker\nE2E-1,kit,Spring kit,Dornay\nE2E-2,kitt,Odd,Dornay\n');
  await expect(report.getByText('1 row cannot be taken, so nothing can be imported.')).toBeVisible();
  await expect(report.getByRole('row').filter({ hasText: 'E2E-2' })).toContainText(
    'kind “kitt” is not one of kit, part',
  );
  await expect(report.getByRole('button', { name: 'Import it' })).toHaveCount(0);
  await report.getByRole('button', { name: 'Drop it' }).click();
  await send('number,kind,name,maker\nE2E-1,kit,Spring kit,Dornay\nE2E-2,kit,Odd,Dornay\n');
  await expect(report.getByText('It can be imported. Nothing has been changed yet.')).toBeVisible();
  await expect(report.getByText('new: E2E-1, kit, Spring kit, Dornay')).toBeVisible();
  await report.getByRole('button', { name: 'Import it' }).click();
  await expect(report.getByText('Imported.', { exact: true })).toBeVisible();
  await page.goto('/stock');
  await page.getByLabel('Book something in or out').fill('E2E-1');
  await page.getByRole('list', { name: 'Found' }).getByRole('button', { name: 'E2E-1 Spring kit' }).click();
  await expect(page.getByRole('dialog', { name: 'E2E-1 Spring kit' })).toBeVisible();
});

test('a carburetor is kept for parts', async ({ page }) => {
  await signIn(page, 'jory', '/stock/donors');
  await page.getByRole('button', { name: 'Keep a carburetor for parts' }).click();
  const name = fresh('Donor');
  await page.getByLabel('What it is called on the shelf').fill(name);
  await page.getByLabel('Spec sheet').fill('QS3');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByRole('list', { name: `Still on ${name}` })).toContainText('choke diaphragm');
});
