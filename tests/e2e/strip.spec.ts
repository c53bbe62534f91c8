import { expect, test, type Page } from './test';
import { atStation, fresh, get } from './bench';

/** Checks in a carburetor whose sheet is known and opens its ledger. */
async function atStrip(page: Page, stamped: string): Promise<number> {
  return atStation(page, 'jory', 'strip', fresh('Pump'), stamped);
}

const row = (page: Page, part: string) => page.getByRole('listitem', { name: part, exact: true });

test('a simple float-bowl carburetor is stripped with a dozen keys', async ({ page }) => {
  const tray = await atStrip(page, '3088');
  let keys = 0;
  const press = async (key: string): Promise<void> => {
    keys++;
    await page.keyboard.press(key);
  };
  await page.getByRole('button', { name: 'Take this: Full strip' }).focus();
  await press('Enter');
  // What came off with the engine went as usual; everything after it is looked at one by one.
  await page.getByRole('button', { name: /^All 5 out, as usual/ }).focus();
  await press('Enter');
  for (const part of [
    'bowl nut with washer',
    'bowl',
    'bowl gasket',
    'float with hinge pin',
    'inlet needle',
    'inlet seat',
  ]) {
    await expect(page.getByRole('button', { name: `It is out: ${part}` })).toBeFocused();
    await press('Enter');
    // Which way round is gone once it is out: it is asked for once, and a second Enter says that nobody saw it.
    if (part !== 'bowl' && part !== 'inlet seat') continue;
    await expect(row(page, part).getByRole('button', { name: 'Not seen which way' })).toBeFocused();
    await press('Enter');
  }
  await expect(page.getByRole('button', { name: 'It is out: main jet' })).toBeFocused();
  await page.getByRole('button', { name: /^All 3 out, as usual/ }).focus();
  await press('Enter');
  await expect(page.getByRole('link', { name: 'Strip all out' })).toBeVisible();
  expect(keys).toBeLessThanOrEqual(12);
  const ledger = await get(page, `/api/trays/${tray}/ledger`);
  expect(ledger.lines.filter((line: { state: string }) => line.state === 'out')).toHaveLength(14);
});

test('what is written as it comes out stays, is drawn back from, and counts at Trace', async ({ page }) => {
  const tray = await atStrip(page, '4107');
  await page.getByRole('button', { name: 'Take this: Full strip' }).click();
  await row(page, 'insulator').getByRole('button', { name: 'Open: insulator' }).click();
  await row(page, 'insulator').getByRole('radio', { name: 'Tall side down' }).click();
  await row(page, 'insulator').getByRole('button', { name: 'It is out: insulator' }).click();
  await expect(row(page, 'insulator').getByText(/Counts at Trace: insulator holes/)).toBeVisible();

  // Turns in eighths; half-said things survive a reload.
  const screw = row(page, 'idle mixture screw');
  await screw.getByRole('button', { name: 'Open: idle mixture screw' }).click();
  await screw.getByRole('button', { name: '1 turn more' }).click();
  await screw.getByRole('button', { name: '¼ turn more' }).click();
  await page.reload();
  await screw.getByRole('button', { name: 'Open: idle mixture screw' }).click();
  await expect(screw.getByRole('status')).toHaveText('1¼');
  await screw.getByRole('button', { name: 'It is out: idle mixture screw' }).click();
  await expect(screw.getByText('1¼ turns')).toBeVisible();

  // A wrong length is refused where it was typed.
  const speed = row(page, 'idle-speed screw');
  await speed.getByRole('button', { name: 'Open: idle-speed screw' }).click();
  await speed.getByLabel('Thread stood in, mm').fill('seven');
  await speed.getByRole('button', { name: 'It is out: idle-speed screw' }).click();
  await expect(speed.getByText(/is not a number|not a length|cannot be read/)).toBeVisible();
  await speed.getByLabel('Thread stood in, mm').fill('7,2');
  await speed.getByRole('button', { name: 'It is out: idle-speed screw' }).click();
  await expect(speed.getByText('stood in 7.2 mm')).toBeVisible();

  // Something on no list.
  await page.getByRole('combobox', { name: 'Something else came out' }).fill('wooden wedge');
  await page.getByLabel('Where from').fill('choke plate');
  await page.getByRole('button', { name: 'Added by someone' }).click();
  await expect(row(page, 'wooden wedge').getByText('added by someone · choke plate')).toBeVisible();

  await page.goto(`/tray/${tray}/trace`);
  const found = page.getByRole('region', { name: 'What was found' });
  await expect(found.getByText('Insulator holes do not line up with the stack')).toBeVisible();
  await expect(found.getByText('Marks of earlier work inside')).toBeVisible();
  await expect(found.getByRole('link', { name: 'Strip' }).first()).toBeVisible();
});

test('a jet out and back on the machine leaves the rest alone', async ({ page }) => {
  const tray = await atStrip(page, '4107');
  await page.getByRole('button', { name: 'Take this: Main jet out and back' }).click();
  await expect(page.getByText(/other parts stay as they are/)).toBeVisible();
  for (const part of ['bowl nut with washer', 'bowl', 'bowl gasket', 'main jet', 'emulsion tube']) {
    if (part === 'bowl')
      await row(page, 'bowl')
        .getByRole('radio', { name: /^Deep side under/ })
        .click();
    await page.getByRole('button', { name: `It is out: ${part}` }).click();
    if (part === 'emulsion tube') await row(page, part).getByRole('button', { name: 'Not seen which way' }).click();
  }
  await page.goto(`/tray/${tray}/build`);
  for (const part of ['emulsion tube', 'main jet', 'bowl gasket', 'bowl', 'bowl nut with washer']) {
    const form = page.getByRole('group', { name: `Fit: ${part}`, exact: true });
    if (part === 'bowl') await form.getByRole('radio', { name: /^Deep side under/ }).click();
    // Nobody saw how it sat: the sheet says at which end its rows have more holes.
    if (part === 'emulsion tube') await form.getByRole('radio', { name: 'More holes at the top' }).click();
    await form.getByRole('button', { name: /^(It|The old one) is in$/ }).click();
  }
  await expect(page.getByText('All parts are in.')).toBeVisible();
});
