import { readFile } from 'node:fs/promises';
import { expect, test } from './test';
import { atStation, fresh, note, PASSWORD, signIn } from './bench';

test('with something open only the lead’s signature lets it go, and the report says so', async ({ page }) => {
  const tray = await atStation(page, 'jory', 'hand-back', fresh('Signed pump'));
  await page.getByLabel('Why it may go as it is').fill('Owner sells it for parts');
  await page.getByLabel('Lead’s sign-in name').or(page.getByLabel("Lead's sign-in name")).fill('jory');
  await page.getByLabel("Lead's password").fill(PASSWORD);
  await page.getByRole('button', { name: 'Sign and hand back' }).click();
  await expect(page.getByText('Only the lead can sign for this.')).toBeVisible();
  await expect(page.getByLabel('Why it may go as it is')).toHaveValue('Owner sells it for parts');
  await page.getByLabel("Lead's sign-in name").fill('ilse');
  await page.getByRole('button', { name: 'Sign and hand back' }).click();
  await expect(page.getByText('Handed back.', { exact: true }).first()).toBeVisible();
  await page.getByRole('link', { name: 'The report' }).click();
  await expect(page.getByRole('heading', { name: 'Went out with something open' })).toBeVisible();
  await expect(page.getByText(/Owner sells it for parts.*Signed: Ilse Brandt/)).toBeVisible();

  // And it can be brought back to the bench with its history.
  await page.goto(`/tray/${tray}/hand-back`);
  await page.getByRole('button', { name: 'Handed back' }).click();
  await page.getByRole('menuitem', { name: 'Bring it back to the bench' }).click();
  await expect(page.getByRole('button', { name: 'Waits for hands' })).toBeVisible();
});

test('what is unsafe stands on every page, is signed for by itself and leads the report', async ({ page }) => {
  const tray = await atStation(page, 'ilse', 'trace', fresh('Bare-belt pump'));
  await note(page, tray, {
    kind: 'reading',
    line: 'proving/guards',
    typed: { units: 'metric', values: { seen: 'guardMissing' }, rows: [] },
  });
  for (const station of ['trace', 'gauge', 'prove']) {
    await page.goto(`/tray/${tray}/${station}`);
    await expect(page.getByText('Guards and spark arrester: missing. Put it back')).toBeVisible();
  }
  await page.goto(`/tray/${tray}/hand-back`);
  await page.getByLabel('Why it may go as it is').fill('Owner sells it for parts');
  await page.getByLabel("Lead's password").fill(PASSWORD);
  await page.getByRole('button', { name: 'Sign and hand back' }).click();
  const why = page.getByLabel('A guard or the spark arrester is missing: why it may go all the same');
  await expect(why).toHaveAccessibleDescription(/Say why it may go with this/);
  await why.fill('The guard is at his shed');
  // What was typed stays; a password never does.
  await page.reload();
  await expect(why).toHaveValue('The guard is at his shed');
  await page.getByLabel("Lead's password").fill(PASSWORD);
  await page.getByRole('button', { name: 'Sign and hand back' }).click();
  await expect(page.getByText('Handed back.', { exact: true }).first()).toBeVisible();
  await page.getByRole('link', { name: 'The report' }).click();
  await expect(page.getByRole('heading', { name: 'Do not run it' })).toBeVisible();
  await expect(page.getByText(/A guard or the spark arrester is missing.*“The guard is at his shed”/)).toBeVisible();
  await page.goto(`/tray/${tray}/label`);
  await expect(page.getByText('DO NOT RUN')).toBeVisible();
});

test('the report prints on two A4 pages at most and comes as JSON and CSV', async ({ page }) => {
  await signIn(page, 'ilse', '/tray/18/report');
  await expect(page.getByRole('heading', { name: 'Bait-tank pump' })).toBeVisible();
  const pdf = (await page.pdf({ format: 'A4', preferCSSPageSize: true })).toString('latin1');
  const pages = pdf.match(/\/Type\s*\/Page\b(?!s)/g)?.length ?? 0;
  expect(pages).toBeGreaterThan(0);
  expect(pages).toBeLessThanOrEqual(2);

  for (const [name, starts] of [
    ['JSON', '{'],
    ['CSV', 'tray,station,line'],
  ] as const) {
    const coming = page.waitForEvent('download');
    await page.getByRole('link', { name }).click();
    const file = await coming;
    expect(file.suggestedFilename()).toBe(`tray-18.${name.toLowerCase()}`);
    expect((await readFile(await file.path(), 'utf8')).startsWith(starts)).toBe(true);
  }
});

test('a body of 10 MB is turned away with a reason', async ({ page }) => {
  await signIn(page, 'ilse');
  const session = await (await page.request.get('/api/session')).json();
  const answer = await page.request.post('/api/trays/27/notes', {
    headers: { 'X-Blue-Dawn-Token': session.token, 'content-type': 'application/json' },
    data: `{"lineKey":"${'x'.repeat(10_000_000)}"}`,
  });
  expect(answer.status()).toBe(413);
  expect((await answer.json()).title).toBe('That is too much at once.');
});
