import { expect, test } from './test';
import { atStation, box, checkIn, expectVerdict, fresh, get, line, notes, signIn } from './bench';

test('two people change one tray: the second sees both versions and decides', async ({ page, browser }) => {
  const tray = await atStation(page, 'jory', 'check-in', fresh('Shared winch'));
  await page.getByRole('button', { name: 'Change', exact: true }).click();
  await page.getByLabel('What the owner says').fill('Stalls under load');

  const other = await browser.newContext({ baseURL: new URL(page.url()).origin });
  const ilse = await other.newPage();
  await signIn(ilse, 'ilse', `/tray/${tray}/check-in`);
  await ilse.getByRole('button', { name: 'Change', exact: true }).click();
  await ilse.getByLabel('What the owner says').fill('Floods on the slip');
  await ilse.getByRole('button', { name: 'Save' }).click();
  await expect(ilse.getByText('Owner says: Floods on the slip').first()).toBeVisible();

  await page.getByRole('button', { name: 'Save' }).click();
  const dialog = page.getByRole('dialog', { name: /Someone else changed this tray/ });
  await expect(dialog.getByRole('cell', { name: 'Stalls under load' })).toBeVisible();
  await expect(dialog.getByRole('cell', { name: 'Floods on the slip' })).toBeVisible();
  await expect(dialog.getByRole('columnheader', { name: 'Ilse Brandt' })).toBeVisible();
  await dialog.getByRole('button', { name: 'Keep mine' }).click();
  await expect(dialog).toBeHidden();
  await expect(page.getByText('Owner says: Stalls under load').first()).toBeVisible();
  await expect(page.getByText('Owner says: Floods on the slip').first()).toBeVisible(); // the logbook keeps both
  await other.close();
});

test('a kit chosen on a tray that has changed meanwhile is decided on, not lost', async ({ page }) => {
  const tray = await atStation(page, 'jory', 'kit', fresh('Shared pump'));
  await expect(
    page
      .getByRole('button', { name: /^Choose it.*: TK-9A$/ })
      .or(page.getByRole('button', { name: /^Choose/ }).first()),
  ).toBeVisible();
  // Someone else moves it while this page looks at it.
  const { version } = (await get(page, `/api/trays/${tray}`)) as { version: number };
  await notes(page, tray, [{ note: { kind: 'facts', waitsFor: 'bath', waitNote: 'basket 3' }, version }]);
  await page.route(`**/api/trays/${tray}`, (route) => route.abort()); // the page has not seen it yet
  await page.getByRole('button', { name: /^Choose it.*: GS-80$/ }).click();
  const dialog = page.getByRole('dialog', { name: /Someone else changed this tray/ });
  await expect(dialog.getByRole('cell', { name: 'GS-80' })).toBeVisible();
  await dialog.getByRole('button', { name: 'Keep mine' }).click();
  await page.unroute(`**/api/trays/${tray}`);
  await expect(page.getByText('Chosen for this tray')).toBeVisible();
});

test('what was typed survives a reload in the middle, line by line', async ({ page }) => {
  await atStation(page, 'jory', 'gauge', fresh('Reload pump'));
  await box(page, 'Main jet', 'goes').fill('0.71');
  await box(page, 'Row 2', 'open').fill('2');
  await page.reload();
  await expect(box(page, 'Main jet', 'goes')).toHaveValue('0.71');
  await expect(box(page, 'Row 2', 'open')).toHaveValue('2');
  await page
    .getByRole('navigation', { name: 'Stations' })
    .getByRole('link', { name: /^Prove/ })
    .click();
  await line(page, 'Fuel on, rocked').getByRole('radio', { name: 'Out of overflow' }).click();
  await page.reload();
  await expect(line(page, 'Fuel on, rocked').getByRole('radio', { name: 'Out of overflow' })).toBeChecked();
});

test('a half-filled check-in survives a reload, and missing answers are asked for by name', async ({ page }) => {
  await signIn(page, 'tam');
  await page.goto('/check-in');
  await page.getByRole('combobox', { name: 'Machine' }).fill('Ice auger, berth 3');
  await page.getByRole('button', { name: 'Give it a tray' }).click();
  await expect(page.getByText('Who brings it? A name or a boat will do.')).toBeVisible();
  await expect(page.getByText('What does the owner say it does?')).toBeVisible();
  await page.reload();
  await expect(page.getByRole('combobox', { name: 'Machine' })).toHaveValue('Ice auger, berth 3');
});

test('nothing is ticked beforehand: a known number says what it is, and where a tick differs it is said', async ({
  page,
}) => {
  await signIn(page, 'tam');
  await page.goto('/check-in');
  await page.getByRole('combobox', { name: 'Owner' }).fill('Boat Petrel');
  await page.getByRole('combobox', { name: 'Machine' }).fill(fresh('Auger'));
  await page.getByLabel('What the owner says').fill('Dies when tilted');
  for (const radio of await page.getByRole('radio').all()) await expect(radio).not.toBeChecked();
  await page.getByRole('button', { name: 'Give it a tray' }).click();
  await expect(page.getByText(/^Which kind is it\?/)).toBeVisible();

  await page.getByLabel('Stamped number').fill('D38-2204');
  await expect(page.getByRole('status').getByText(/D38-2204 is the .* DM38: diaphragm, two-stroke/)).toBeVisible();
  await expect(page.getByRole('radio', { name: 'Diaphragm' })).toBeChecked();
  await page.getByRole('radio', { name: 'Float bowl' }).click();
  await expect(page.getByText(/What is ticked says otherwise \(family\)/)).toBeVisible();
  await page.getByRole('radio', { name: 'Diaphragm' }).click();
  await page.getByRole('button', { name: 'Give it a tray' }).click();
  await expect(page).toHaveURL(/\/tray\/\d+\/kit$/);
  await expect(page.getByText(/DM38 · diaphragm, stamped D38-2204/)).toBeVisible();
});

test('the front desk checks in and reads along, but records nothing', async ({ page }) => {
  const tray = await atStation(page, 'tam', 'gauge', fresh('Desk pump'));
  await expect(box(page, 'Main jet', 'goes')).toBeDisabled();
  await expect(page.getByText('A technician records here')).toBeVisible();
  // What is off says why where it is pressed: a box, and a word of a choice.
  const said = page.locator('[data-announcer]');
  await expect(said).toBeEmpty();
  await box(page, 'Main jet', 'goes').press('5');
  await expect(said).toContainText('A technician records here');
  await page.goto(`/tray/${tray}/trace`);
  const apart = page.getByRole('radiogroup', { name: 'How far apart it is' }).getByRole('radio').last();
  await expect(said).toBeEmpty();
  // It keeps the focus and takes no press: Playwright waits for what is on.
  await apart.dispatchEvent('click');
  await expect(said).toContainText('A technician records here');
  await expect(apart).not.toBeChecked();
  await page.goto(`/tray/${tray}/hand-back`);
  await expect(page.getByText('A technician or the lead hands it back.')).toBeVisible();
});

test('what it waits for can be changed, with a note, and the bench shows it there', async ({ page }) => {
  await signIn(page, 'ilse');
  const machine = fresh('Waiting pump');
  const tray = await checkIn(page, machine);
  await page.getByRole('button', { name: 'Waits for hands' }).click();
  await page.getByRole('menuitem', { name: 'Owner' }).click();
  await page.getByLabel('Note').fill('asked about a new float');
  await page.getByRole('button', { name: 'Put it there' }).click();
  await expect(page.getByText('Owner: asked about a new float')).toBeVisible();
  await expect(page.getByRole('dialog')).toBeHidden();
  await page.keyboard.press('b');
  const waiting = page.getByRole('region', { name: 'Waiting on something else' });
  await expect(waiting.getByRole('link', { name: new RegExp(machine) })).toBeVisible();
  // Found again by its number.
  await page.keyboard.press('/');
  await page.keyboard.type(String(tray));
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(new RegExp(`/tray/${tray}/`));
});

test('a tray that is not there is said so', async ({ page }) => {
  await signIn(page, 'ilse', '/tray/9999/gauge');
  await expect(page.getByRole('alert').getByText('There is no tray 9999.')).toBeVisible();
  await page.goto('/tray/27/no-such-station');
  await expect(page).toHaveURL(/\/tray\/27\/(gauge|kit|set)$/);
  await page.goto('/nowhere');
  await expect(page.getByText('There is no page here.')).toBeVisible();
  await expectVerdictFree(page);
});

async function expectVerdictFree(page: Parameters<typeof expectVerdict>[0]): Promise<void> {
  await expect(page.getByRole('article')).toHaveCount(0);
}

test('one box finds trays by what stands on them, sheets, items and pages, by keyboard alone', async ({ page }) => {
  const number = await atStation(page, 'ilse', 'kit', fresh('Net hauler'), '4107-B');
  await page.goto('/');
  await expect(page.getByRole('button', { name: 'Sign out' }).first()).toBeVisible();
  const box = page.getByRole('combobox', { name: /^Find anything/ });
  const found = page.getByRole('listbox', { name: 'Found' });
  await page.keyboard.press('/');
  await expect(box).toBeFocused();
  // A stamp, written another way than on the tray.
  await page.keyboard.type('4107 b');
  await expect(found.getByRole('option', { name: new RegExp(`^${number} `) })).toBeVisible();
  await expect(page.getByText(/^\d+ found$/)).toBeVisible();
  // Esc clears it, and the list of trays is whole again.
  await page.keyboard.press('Escape');
  await expect(found).toBeHidden();
  await page.keyboard.type('rules');
  await expect(found.getByRole('option', { name: 'Rules' })).toBeVisible();
  await page.keyboard.press('ArrowUp');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/rules$/);
  await expect(box).toHaveValue('');
  await page.keyboard.press('Escape');
  await page.getByRole('heading', { level: 1 }).click();
  await page.keyboard.press('/');
  await page.keyboard.type('OK-207S');
  await expect(found.getByRole('option', { name: /^OK-207S/ })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('dialog')).toContainText('OK-207S');
  await page.keyboard.press('Escape');
  await expect(page).toHaveURL(/\/stock\/shelf$/);
  // On a narrow screen the same key opens it behind the first button.
  await page.setViewportSize({ width: 390, height: 844 });
  await expect(page.getByRole('button', { name: 'Trays, more' })).toBeVisible();
  await page.keyboard.press('/');
  await expect(page.getByRole('dialog').getByRole('combobox', { name: /^Find anything/ })).toBeFocused();
  await page.keyboard.type(`${number}`);
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(new RegExp(`/tray/${number}`));
  await expect(page.getByRole('dialog')).toBeHidden();
});
