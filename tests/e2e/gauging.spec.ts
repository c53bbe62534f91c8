import { expect, test } from './test';
import { atStation, box, expectVerdict, fresh, line, signIn } from './bench';

test.beforeEach(async ({ page }) => {
  await atStation(page, 'jory', 'gauge', fresh('Gauge pump'));
});

test('the verdict is there while typing, before anything is recorded', async ({ page }) => {
  await box(page, 'Main jet', 'goes').pressSequentially('0.65');
  await expectVerdict(page, 'Main jet', 'Cannot tell yet');
  await box(page, 'Main jet', 'stops').pressSequentially('0.67');
  await expectVerdict(page, 'Main jet', 'Restricted');
  await expect(line(page, 'Main jet').getByText('82–87 % area')).toBeVisible();
  await expect(line(page, 'Main jet').getByText('not recorded yet')).toBeVisible();
  await page.keyboard.press('Escape');
  await expectVerdict(page, 'Main jet', 'Not read');
});

test('cannot tell names the deciding pin, and one touch on what it did settles it', async ({ page }) => {
  await box(page, 'Main jet', 'goes').fill('0.71');
  await box(page, 'Main jet', 'stops').fill('0.73');
  await page.keyboard.press('Enter');
  await expectVerdict(page, 'Main jet', 'In gauge');
  await box(page, 'Idle jet', 'goes').fill('0.30');
  await box(page, 'Idle jet', 'stops').fill('0.34');
  await page.keyboard.press('Enter');
  await expectVerdict(page, 'Idle jet', 'Cannot tell yet');
  await expect(line(page, 'Idle jet').getByText(/^Try the .* pin\.$/)).toBeVisible();
  await line(page, 'Idle jet')
    .getByRole('button', { name: /goes, in gauge$/ })
    .click();
  await expectVerdict(page, 'Idle jet', 'In gauge');
});

for (const [what, goes, stops, says] of [
  ['text in a number', 'abc', '', /is not a number/],
  ['a negative bore', '-0.3', '', /above 0|from 0.001/],
  ['pins the wrong way round', '0.4', '0.3', /must be larger/],
  ['an absurd unit', '3 parsecs', '', /does not fit here/],
  ['a size no jet has', '700', '', /Check the/],
] as const) {
  test(`${what} is refused with what to do, and stays on the page`, async ({ page }) => {
    await box(page, 'Main jet', 'goes').fill(goes);
    if (stops) await box(page, 'Main jet', 'stops').fill(stops);
    await page.getByRole('button', { name: 'Record Main jet' }).click();
    await expect(line(page, 'Main jet').getByRole('alert')).toHaveText(says);
    await expect(box(page, 'Main jet', 'goes')).toHaveValue(goes);
    await expectVerdict(page, 'Main jet', 'Not read');
    await page.reload();
    await expect(box(page, 'Main jet', 'goes')).toHaveValue(goes);
  });
}

test('a direct bore is taken with its instrument’s step', async ({ page }) => {
  await page
    .getByRole('radiogroup', { name: 'How to measure: Jets' })
    .getByRole('radio', { name: 'Direct bore' })
    .click();
  await box(page, 'Main jet', 'bore').fill('0.72');
  await page.keyboard.press('Enter');
  await expectVerdict(page, 'Main jet', 'In gauge');
  await line(page, 'Main jet')
    .getByRole('button', { name: /Why and history$/ })
    .click();
  await expect(line(page, 'Main jet').getByText(/in steps of 0.01 mm/)).toBeVisible();
});

test('two columns pasted from a logger fill the hold test', async ({ page }) => {
  await page.goto(page.url().replace('/gauge', '/set'));
  const first = page.getByLabel('Hold test at 2 s');
  await first.focus();
  await first.evaluate((element) => {
    const data = new DataTransfer();
    data.setData('text', Array.from({ length: 13 }, (_, i) => `${i}\t${(48 - i * 0.02).toFixed(2)}`).join('\n'));
    element.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
  });
  await expectVerdict(page, 'Hold test', 'Held');
  await page.getByRole('button', { name: 'Record Hold test' }).click();
  await expect(line(page, 'Hold test').getByText('not recorded yet')).toBeHidden();
  await expectVerdict(page, 'Hold test', 'Held');
});

test('a number far from the sheet is held, with what was likely meant a touch away', async ({ page }) => {
  await box(page, 'Idle jet', 'goes').fill('3.2');
  await box(page, 'Idle jet', 'stops').fill('3.4');
  const held = line(page, 'Idle jet').getByRole('group', { name: 'Far from the sheet' });
  await expect(held.getByText('3.2 mm? It should be about 0.33 mm.')).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(line(page, 'Idle jet').getByRole('button', { name: /Not read/ })).toBeVisible();
  await held.getByRole('button', { name: '0.32 mm' }).click();
  await held.getByRole('button', { name: '0.34 mm' }).click();
  await expect(held).toBeHidden();
  await expect(box(page, 'Idle jet', 'goes')).toHaveValue('0.32');
  await expect(line(page, 'Idle jet').getByText(/In gauge/)).toBeVisible();
  await page.reload();
  await expect(box(page, 'Idle jet', 'goes')).toHaveValue('0.32'); // not recorded yet, and kept
});

test('someone who works in inches reads and types inches; the record is the same', async ({ page, browser }) => {
  await box(page, 'Main jet', 'goes').fill('0.7112 mm');
  await box(page, 'Main jet', 'stops').fill('0.7366 mm');
  await page.keyboard.press('Enter');
  await expectVerdict(page, 'Main jet', 'Cannot tell yet');
  const other = await browser.newContext({
    baseURL: new URL(page.url()).origin,
    viewport: { width: 1280, height: 800 },
  });
  const marit = await other.newPage();
  await signIn(marit, 'marit', new URL(page.url()).pathname);
  await expect(line(marit, 'Main jet').getByText('0.0283 ± 0.0004 in')).toBeVisible();
  await box(marit, 'Main jet', 'goes').fill('#70');
  await box(marit, 'Main jet', 'stops').fill('.0287');
  await marit.keyboard.press('Enter');
  await expect(marit.getByRole('button', { name: 'New reading, record Main jet' })).toBeFocused();
  await marit.keyboard.press('Enter');
  await expectVerdict(marit, 'Main jet', 'In gauge');
  await page.reload();
  await expectVerdict(page, 'Main jet', 'In gauge');
  await other.close();
});
