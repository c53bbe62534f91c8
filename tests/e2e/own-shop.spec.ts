import { freePort, OwnServer } from './machine';
import { emptyDatabases, expect, SETUP_CODE, test, type Locator, type Page } from './test';
import { box, expectVerdict, get, line, note, send } from './bench';

/** A shop that begins empty, on a server and a database of its own. */
const PASSWORD = 'four brass floats rising';

test.use({ shop: 'empty' });
test.describe.configure({ mode: 'serial' });

async function signIn(page: Page, userName: string, password: string): Promise<void> {
  await page.goto('/');
  await page.getByLabel('Name').fill(userName);
  await page.getByLabel('Password').fill(password);
  await page.getByRole('button', { name: 'Sign in', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Sign out' }).first()).toBeVisible();
}

test('the first page makes the first lead, with the code from the terminal and a password that is worth one', async ({
  page,
}) => {
  await page.goto('/');
  const field = (name: string) => page.getByLabel(name, { exact: true });
  await expect(field('Code from the terminal')).toBeFocused();
  // By Tab and Enter alone, on a phone, a tablet and a screen.
  for (const [width, height] of [
    [390, 844],
    [820, 1180],
    [1280, 800],
  ] as const) {
    await page.setViewportSize({ width, height });
    await page.reload();
    await expect(field('Code from the terminal')).toBeFocused();
    await typeInto(page, field('Code from the terminal'), 'AAAA-BBBB-CCCC');
    await typeInto(page, field('The shop’s name'), 'Lee Shore Workshop');
    await typeInto(page, field('An hour at the bench costs'), '52');
    await typeInto(page, field('Your name in the book'), 'Nessa Falk');
    await typeInto(page, field('Name you sign in with'), 'nessa');
    await typeInto(page, field('Password'), 'password1234');
    await page.keyboard.press('Enter');
    await expect(page.getByText('That is not the code in the terminal')).toBeVisible();
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(width);
  }
  await expect(page.getByText(/on every list of passwords/)).toBeVisible();
  // Nothing that was typed is lost.
  await expect(field('The shop’s name')).toHaveValue('Lee Shore Workshop');
  await field('Code from the terminal').fill(SETUP_CODE.toLowerCase().replaceAll('-', ''));
  await field('Password').fill(PASSWORD);
  await page.keyboard.press('Enter');
  await expect(page.getByText('Lee Shore Workshop')).toBeVisible();
  // It is set up once: a second one, also with the right code, finds somebody.
  const again = await page.request.post('/api/session/first', {
    headers: { 'X-Blue-Dawn-Token': await token(page) },
    data: {
      code: SETUP_CODE,
      shopName: 'Another',
      timeZone: 'UTC',
      currency: 'EUR',
      labour: '1',
      units: 'metric',
      displayName: 'Eve',
      userName: 'eve',
      password: PASSWORD,
    },
  });
  expect(again.status()).toBe(409);
});

test('a person is added, sets a password with a code once, and the last lead stays', async ({
  page,
  browser,
  server,
}) => {
  await signIn(page, 'nessa', PASSWORD);
  await page.getByRole('link', { name: 'People' }).click();
  await page.getByLabel('Name in the book').fill('Anna Kvist');
  await expect(page.getByLabel('Name they sign in with')).toHaveValue('anna');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByRole('listitem', { name: 'Anna Kvist' }).getByText('AK', { exact: true })).toBeVisible();
  const code = /[A-Z0-9]{4}-[A-Z0-9]{4}-[A-Z0-9]{4}/.exec(
    await page.getByText(/Give anna this code/).innerText(),
  )?.[0] as string;
  const other = await browser.newContext({ baseURL: server.url });
  const anna = await other.newPage();
  await anna.goto('/');
  await anna.getByRole('button', { name: 'I have a code' }).click();
  await anna.getByLabel('Name').fill('anna');
  await anna.getByLabel('Code').fill(code);
  await anna.getByLabel('New password').fill('seven winds over the bar');
  await anna.keyboard.press('Enter');
  await expect(anna.getByRole('button', { name: 'Sign out' }).first()).toBeVisible();
  await expect(anna.getByRole('link', { name: 'People' })).toHaveCount(0);
  // The code counts once.
  const used = await anna.request.post('/api/session/code', {
    headers: { 'X-Blue-Dawn-Token': await token(anna) },
    data: { userName: 'anna', code, password: 'eight winds over the bar' },
  });
  expect(used.status()).toBe(401);
  // She changes it herself, and is told that it is done.
  await anna.goto('/my-bench');
  await anna.getByLabel('Password now').fill('seven winds over the bar');
  await anna.getByLabel('New password').fill('nine winds over the bar');
  await anna.keyboard.press('Enter');
  await expect(anna.getByText('Changed. Your other devices were signed out.')).toBeVisible();
  await expect(anna.getByText('That did not work.')).toHaveCount(0);
  // The last lead can neither step down nor lock herself out.
  await page.getByRole('button', { name: 'Change: Nessa Falk' }).click();
  await page.getByRole('radiogroup', { name: 'Role: Nessa Falk' }).getByRole('radio', { name: 'Technician' }).click();
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText(/is the last lead/).first()).toBeVisible();
  // Locked out, she is out at once, and cannot come back.
  await page.getByRole('button', { name: 'Change: Anna Kvist' }).click();
  await page
    .getByRole('listitem', { name: 'Anna Kvist' })
    .getByRole('button', { name: 'Lock out', exact: true })
    .click();
  await expect(page.getByText(/locked out/).first()).toBeVisible();
  expect((await anna.request.get('/api/bench')).status()).toBe(401);
  await other.close();
});

test('a sheet is made from a tray, judged by, corrected as a new issue; the tray keeps the old one until it is moved', async ({
  page,
}) => {
  await signIn(page, 'nessa', PASSWORD);
  const { number } = await send<{ number: number }>(page, '/api/trays', {
    trayId: crypto.randomUUID(),
    entryId: crypto.randomUUID(),
    ownerName: 'Boat Osprey',
    machineName: 'Deck pump',
    stampedNumber: 'Z-410',
    family: 'floatBowl',
    complaint: 'Hunts when warm',
    promisedDay: new Date(Date.now() + 5 * 86_400_000).toISOString().slice(0, 10),
  });
  // Work does not wait for a sheet: what has no limit yet is kept.
  await page.goto(`/tray/${number}/gauge`);
  await box(page, 'Idle jet', 'goes').fill('0.30');
  await box(page, 'Idle jet', 'stops').fill('0.32');
  await page.keyboard.press('Enter');
  await expectVerdict(page, 'Idle jet', 'No limit');
  await page.goto(`/tray/${number}/kit`);
  await page.getByRole('link', { name: 'Make a sheet for it' }).click();
  await expect(page.getByLabel('Code', { exact: true })).toHaveValue('Z-410');
  await page.getByLabel('Bore, mm, 1').fill('0.72');
  await page.getByLabel('Either way, mm, 1').fill('wide');
  await expect(page.getByText(/“wide” is not a number/)).toBeVisible();
  await page.getByLabel('Either way, mm, 1').fill('0.01');
  await expect(page.getByText('0.71 to 0.73 mm')).toBeVisible();
  await page.getByLabel('Float, height, mm').fill('14');
  // Reload in the middle: nothing typed is lost.
  await page.reload();
  await expect(page.getByLabel('Bore, mm, 1')).toHaveValue('0.72');
  await page.getByRole('button', { name: /Put it on file/ }).click();
  await expect(page.getByText('Needed with the rest of float.').first()).toBeVisible();
  await page.getByLabel('Float, pin to tab, mm').fill('8');
  await page.getByLabel('Float, pin to measure, mm').fill('24');
  await page.getByRole('button', { name: /Put it on file/ }).click();
  await expect(page).toHaveURL(new RegExp(`/tray/${number}/kit`));
  await expect(page.getByText(/Spec sheet|Sheet/).first()).toBeVisible();

  await page.goto(`/tray/${number}/gauge`);
  await box(page, 'Main jet', 'goes').fill('0.715');
  await box(page, 'Main jet', 'stops').fill('0.725');
  await page.keyboard.press('Enter');
  await expectVerdict(page, 'Main jet', 'In gauge');

  await page.goto('/sheets/Z-410');
  await page.getByRole('link', { name: 'Correct it' }).click();
  await page.getByLabel('Bore, mm, 1').fill('0.80');
  await page.getByRole('button', { name: 'Put the new issue on file' }).click();
  await expect(page.getByText(/Say what was changed and why/).first()).toBeVisible();
  await page.getByLabel('What is changed, and why').fill('The plate says 80');
  await page.getByRole('button', { name: 'Put the new issue on file' }).click();
  await expect(page.getByText('Still judged by issue 1')).toBeVisible();
  await page.getByLabel('Beside it').selectOption('Z-410 1');
  await expect(page.getByRole('row', { name: /Main jet/ })).toContainText('0.72');

  // Two at once: whoever wrote from the older issue is told, and nothing is lost.
  const issues = (await get(page, '/api/sheets/Z-410')) as unknown as { sheet: object }[];
  const late = await page.request.put('/api/sheets/Z-410', {
    headers: { 'X-Blue-Dawn-Token': await token(page) },
    data: { sheet: issues[1]?.sheet, basedOn: 1, why: 'late' },
  });
  expect(late.status()).toBe(409);

  const judged = async () =>
    (
      (await get(page, `/api/trays/${number}`)) as { lines: { key: string; judgement: { finding: string } }[] }
    ).lines.find(({ key }) => key === 'gauging/main-jet')?.judgement.finding;
  expect(await judged()).toBe('inGauge');
  const { version } = await get(page, `/api/trays/${number}`);
  await send(page, `/api/trays/${number}/notes`, {
    entries: [
      {
        id: crypto.randomUUID(),
        takenAt: new Date().toISOString(),
        version,
        note: { kind: 'sheet', specCode: 'Z-410' },
      },
    ],
  });
  expect(await judged()).toBe('restricted');
  await page.goto(`/tray/${number}/gauge`);
  await expect(line(page, 'Main jet').getByText(/0.80/).first()).toBeVisible();
});

test('a rule is changed with a reason and seen in a verdict; a tray with readings keeps the old one until it is judged anew', async ({
  page,
}) => {
  await signIn(page, 'nessa', PASSWORD);
  const watched = async (machineName: string) => {
    const { number } = await send<{ number: number }>(page, '/api/trays', {
      trayId: crypto.randomUUID(),
      entryId: crypto.randomUUID(),
      ownerName: 'Boat Osprey',
      machineName,
      stampedNumber: 'Z-410',
      family: 'floatBowl',
      complaint: 'Leaks',
      promisedDay: new Date(Date.now() + 5 * 86_400_000).toISOString().slice(0, 10),
    });
    await note(page, number, { kind: 'job', job: 'closed' });
    await note(page, number, {
      kind: 'reading',
      line: 'proving/fuel-on',
      typed: { units: 'metric', values: { minutes: '4', rocked: 'yes', leak: 'dry' }, rows: [] },
    });
    return number;
  };
  const before = await watched('Bilge pump');
  await page.getByRole('link', { name: 'Rules' }).click();
  const rule = page.getByRole('listitem', { name: 'Fuel on', exact: true });
  await rule.getByRole('button', { name: 'Change: Fuel on' }).click();
  await rule.getByLabel('Value, min').fill('600');
  await rule.getByRole('button', { name: 'Change it' }).click();
  await expect(rule.getByText(/From 1 to 60/)).toBeVisible();
  await rule.getByLabel('Value, min').fill('6');
  await expect(rule.getByText(/Say why/)).toBeVisible();
  await rule.getByLabel('Why').fill('Two came back wet');
  await page.keyboard.press('Enter');
  await expect(rule.getByText(/Nessa Falk.*Two came back wet/)).toBeVisible();
  const finding = async (number: number) =>
    (
      (await get(page, `/api/trays/${number}`)) as { lines: { key: string; judgement: { finding: string } }[] }
    ).lines.find(({ key }) => key === 'proving/fuel-on')?.judgement.finding;
  expect(await finding(before)).toBe('dry');
  expect(await finding(await watched('Wash pump'))).toBe('cannotTell');
  await page.goto(`/tray/${before}/prove`);
  await page.getByRole('button', { name: 'Judge it by today’s rules' }).click();
  await expect(page.getByText('Judged by the shop’s rules of before.')).toHaveCount(0);
  await expect(page.getByText('That did not work.')).toHaveCount(0);
  expect(await finding(before)).toBe('cannotTell');
});

test('a table is changed a row, seen in the step it leads a tray to, and taken back, by keyboard alone', async ({
  page,
}) => {
  await signIn(page, 'nessa', PASSWORD);
  const { number } = await send<{ number: number }>(page, '/api/trays', {
    trayId: crypto.randomUUID(),
    entryId: crypto.randomUUID(),
    ownerName: 'Boat Osprey',
    machineName: 'Fog horn compressor',
    stampedNumber: '',
    family: 'floatBowl',
    complaint: 'Dies',
    promisedDay: new Date(Date.now() + 5 * 86_400_000).toISOString().slice(0, 10),
  });
  await note(page, number, {
    kind: 'findings',
    checkId: 'owner-story',
    answers: [{ findingId: 'dies-after-minutes', said: 'present' }],
    fromOwner: true,
  });
  const step = async () =>
    ((await get(page, `/api/trays/${number}`)) as { next: { do: { text: string } } }).next.do.text;
  const before = await step();
  await page.keyboard.press('/');
  await page.keyboard.type('knowledge');
  await expect(page.getByRole('option', { name: 'Knowledge' })).toBeVisible();
  await page.keyboard.press('Enter');
  await page.getByRole('link', { name: /^Causes/ }).focus();
  await page.keyboard.press('Enter');
  const find = page.getByLabel('Find', { exact: true });
  await find.focus();
  await page.keyboard.type('vent');
  const row = page.getByRole('listitem', { name: 'tank-vent-blocked' });
  await row.getByRole('button', { name: 'Change: tank-vent-blocked' }).focus();
  await page.keyboard.press('Enter');
  // What it must not be is said at its box, and nothing that was typed is lost by a reload.
  await row.getByLabel('Prior weight').focus();
  await page.keyboard.press('ControlOrMeta+a');
  await page.keyboard.type('seldom');
  await page.keyboard.press('Enter');
  await expect(row.getByText(/“seldom” is not a number of 0 or more/).first()).toBeVisible();
  await page.reload();
  await page.getByRole('button', { name: 'Change: tank-vent-blocked' }).focus();
  await page.keyboard.press('Enter');
  await expect(row.getByLabel('Prior weight')).toHaveValue('seldom');
  await row.getByLabel('Prior weight').focus();
  await page.keyboard.press('ControlOrMeta+a');
  await page.keyboard.type('500');
  await page.keyboard.press('Enter');
  await expect(row.getByText(`prior weight: 3 → 500`)).toBeVisible();
  await expect(row.getByRole('link', { name: new RegExp(`^${number} Fog horn`) })).toBeVisible();
  expect(await step()).toBe(before);
  await expect(row.getByLabel('Why')).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(row.getByText(/Say why/)).toBeVisible();
  await page.keyboard.type('Our caps have no vent');
  await page.keyboard.press('Enter');
  await expect(row.getByText('changed here')).toBeVisible();
  await expect.poll(step).not.toBe(before);
  // Taken back: everything is as it was, and both are in the list of versions.
  await page.getByRole('link', { name: 'Knowledge' }).last().focus();
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Go back to version 0' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Why')).toBeFocused();
  await page.keyboard.type('Tried it');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('listitem', { name: 'Version 2' }).getByText('In use now')).toBeVisible();
  await expect(page.getByText(/Nessa Falk.*Our caps have no vent/)).toBeVisible();
  expect(await step()).toBe(before);
});

/** Tab by Tab to something, as a hand does that has no pointer; from where the focus is. */
async function reach(page: Page, target: Locator): Promise<void> {
  await expect(target).toBeVisible();
  for (let i = 0; i < 160; i++) {
    if (await target.evaluate((node) => node === document.activeElement)) return;
    await page.keyboard.press('Tab');
  }
  await expect(target).toBeFocused();
}

async function typeInto(page: Page, target: Locator, text: string): Promise<void> {
  await reach(page, target);
  await page.keyboard.press('ControlOrMeta+a');
  await page.keyboard.type(text);
}

async function press(page: Page, target: Locator): Promise<void> {
  await reach(page, target);
  await page.keyboard.press('Enter');
}

/** A page by the one box that finds everything, and back. */
async function goByKeys(page: Page, words: string, url: RegExp): Promise<void> {
  await page.keyboard.press('/');
  await page.keyboard.press('ControlOrMeta+a');
  await page.keyboard.type(words);
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(url);
}

// On a phone: what is wide has to fold, and every key is a step farther. At 820 and 1280 each page is looked at in pages.spec.ts.
test('at 390 wide a person, a sheet of each family, its next issue, a rule and a table, by keyboard alone', async ({
  page,
}) => {
  const [width, height, name] = [390, 844, 'Ada Holm'];
  test.setTimeout(150_000);
  await page.setViewportSize({ width, height });
  await signIn(page, 'nessa', PASSWORD);
  // A person.
  await goByKeys(page, 'people', /\/people/);
  await typeInto(page, page.getByLabel('Name in the book'), name);
  await page.keyboard.press('Enter');
  await expect(page.getByText(/Give .* this code/)).toBeVisible();

  // A sheet from a tray of each family, each with a line of its own; the tray goes by it.
  for (const [family, title, boxes, sent] of [
    [
      'floatBowl',
      'float',
      ['Float, height, mm', 'Float, pin to tab, mm', 'Float, pin to measure, mm'],
      ['14', '8', '24'],
    ],
    ['diaphragm', 'pop', ['Pop-off, lowest, kPa', 'Pop-off, highest, kPa'], ['85', '135']],
    ['suctionTank', 'speed', ['Governed speed, slowest, rpm', 'Governed speed, fastest, rpm'], ['3000', '3200']],
  ] as const) {
    const stamped = `K${width}-${title.toUpperCase()}`;
    const { number } = await send<{ number: number }>(page, '/api/trays', {
      trayId: crypto.randomUUID(),
      entryId: crypto.randomUUID(),
      ownerName: 'Boat Osprey',
      machineName: `Pump ${stamped}`,
      stampedNumber: stamped,
      family,
      complaint: 'Hunts when warm',
      promisedDay: new Date(Date.now() + 5 * 86_400_000).toISOString().slice(0, 10),
    });
    await page.goto(`/tray/${number}/kit`);
    await press(page, page.getByRole('link', { name: 'Make a sheet for it' }));
    await expect(page.getByLabel('Code', { exact: true })).toHaveValue(stamped);
    await typeInto(page, page.getByLabel('Bore, mm, 1'), '0.72');
    for (const [i, label] of boxes.entries())
      await typeInto(page, page.getByLabel(label, { exact: true }), sent[i] ?? '');
    await press(page, page.getByRole('button', { name: /Put it on file, and tray/ }));
    await expect(page).toHaveURL(new RegExp(`/tray/${number}/kit`));
    await expect
      .poll(async () => ((await get(page, `/api/trays/${number}`)) as { facts: { specCode: string } }).facts.specCode)
      .toBe(stamped);
  }

  // The float bowl's limit was wrong: a new issue, and the tray that waits is judged by it.
  const code = `K${width}-FLOAT`;
  await page.goto(`/sheets/${code}`);
  await press(page, page.getByRole('link', { name: 'Correct it' }));
  await typeInto(page, page.getByLabel('Bore, mm, 1'), '0.80');
  await typeInto(page, page.getByLabel('What is changed, and why'), 'The plate says 80');
  await press(page, page.getByRole('button', { name: 'Put the new issue on file' }));
  await expect(page.getByText('Still judged by issue 1')).toBeVisible();
  await press(page, page.getByRole('button', { name: 'Judge it by issue 2' }));
  await expect(page.getByText('Still judged by issue 1')).toHaveCount(0);

  // A rule, and the verdict that goes by it: the school of the shop.
  const number = ((await get(page, `/api/sheets/${code}`)) as unknown as { trays: number[] }[])[0]?.trays[0] ?? 0;
  const advice = async (): Promise<string> =>
    (
      (await get(page, `/api/trays/${number}`)) as {
        lines: { key: string; judgement: { doNext: { text: string } } }[];
      }
    ).lines.find(({ key }) => key === 'gauging/main-jet')?.judgement.doNext.text ?? '';
  await goByKeys(page, 'rules', /\/rules/);
  const rule = page.getByRole('listitem', { name: 'A jet that starves', exact: true });
  await press(page, rule.getByRole('button', { name: 'Change: A jet that starves' }));
  await reach(page, rule.getByLabel('Value'));
  await page.keyboard.type('renew');
  await typeInto(page, rule.getByLabel('Why'), `New jets are cheap, ${width}`);
  await page.keyboard.press('Enter');
  await expect(rule.getByText(new RegExp(`→ renew. New jets are cheap, ${width}`))).toBeVisible();
  await page.goto(`/tray/${number}/gauge`);
  await typeInto(page, box(page, 'Main jet', 'goes'), '0.70');
  await typeInto(page, box(page, 'Main jet', 'stops'), '0.72');
  await page.keyboard.press('Enter');
  await expectVerdict(page, 'Main jet', 'Restricted');
  await expect(line(page, 'Main jet').getByText(/this shop renews a jet that starves/)).toBeVisible();
  await expect.poll(advice).toContain('Fit a new jet');
  await page.goto('/rules');
  await press(page, rule.getByRole('button', { name: 'Change: A jet that starves' }));
  await reach(page, rule.getByLabel('Value'));
  await page.keyboard.type('clear');
  await typeInto(page, rule.getByLabel('Why'), 'Back to clearing');
  await page.keyboard.press('Enter');
  await expect(rule.getByText(/→ clear only/)).toBeVisible();

  // A table: a row changed, and taken back.
  await goByKeys(page, 'knowledge', /\/knowledge/);
  await press(page, page.getByRole('link', { name: /^Causes/ }));
  await typeInto(page, page.getByLabel('Find', { exact: true }), 'vent');
  const row = page.getByRole('listitem', { name: 'tank-vent-blocked' });
  await press(page, row.getByRole('button', { name: 'Change: tank-vent-blocked' }));
  await typeInto(page, row.getByLabel('Prior weight'), String(width / 1000));
  await page.keyboard.press('Enter');
  await expect(row.getByLabel('Why')).toBeFocused();
  await page.keyboard.type('Our caps have no vent');
  await page.keyboard.press('Enter');
  await expect(row.getByText('changed here')).toBeVisible();
  await press(page, page.getByRole('link', { name: 'Knowledge' }).last());
  await press(page, page.getByRole('button', { name: 'Go back to version 0' }));
  await expect(page.getByLabel('Why')).toBeFocused();
  await page.keyboard.type('Tried it');
  await page.keyboard.press('Enter');
  await expect(page.getByText('In use now')).toBeVisible();
  await expect(page.getByText(/Tried it/).first()).toBeVisible();
  // Nothing stands past the edge of the screen.
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(width);
});

test('on a device a lead trusts a name and a PIN open, and what needs a lead waits for the password', async ({
  page,
}) => {
  await signIn(page, 'nessa', PASSWORD);
  await page.goto('/my-bench');
  const mine = page.getByRole('region', { name: 'My PIN' });
  await mine.getByLabel('Password', { exact: true }).fill(PASSWORD);
  await mine.getByLabel('PIN', { exact: true }).fill('1234');
  await page.keyboard.press('Enter');
  await expect(mine.getByText(/everybody tries/)).toBeVisible();
  await mine.getByLabel('PIN', { exact: true }).fill('4071');
  await page.keyboard.press('Enter');
  await expect(mine.getByText('Your PIN is set.')).toBeVisible();
  const benches = page.getByRole('region', { name: 'Shared benches' });
  await benches.getByLabel('What this device is called').fill('Tablet by the bath');
  await page.keyboard.press('Enter');
  await expect(benches.getByText('this one')).toBeVisible();
  await page.getByRole('button', { name: 'Sign out' }).first().click();
  // By touch: the name, the digits.
  await page.setViewportSize({ width: 390, height: 844 });
  await page.getByRole('button', { name: /Nessa Falk/ }).click();
  await expect(page.getByLabel('PIN of Nessa Falk')).toBeFocused();
  await page.keyboard.type('9999');
  await page.keyboard.press('Enter');
  await expect(page.getByText('That PIN does not open.')).toBeVisible();
  await page.keyboard.type('4071');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Sign out' }).first()).toBeVisible();
  await page.setViewportSize({ width: 1280, height: 800 });
  await expect(page.getByRole('link', { name: 'People' })).toHaveCount(0);
  await page.goto('/my-bench');
  const proof = page.getByRole('region', { name: 'Signed in by PIN' });
  await proof.getByLabel('Password, for what a lead may do').fill(PASSWORD);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('link', { name: 'People' })).toBeVisible();
  await expect(proof).toHaveCount(0);
  await page.getByRole('button', { name: 'No more PINs: Tablet by the bath' }).click();
  await expect(page.getByText('this one')).toHaveCount(0);
  await page.getByRole('button', { name: 'Sign out' }).first().click();
  await expect(page.getByLabel('Name')).toBeVisible();
});

test('an owner is spelled right and blanked: the tray keeps its work, not the name', async ({ page }) => {
  await signIn(page, 'nessa', PASSWORD);
  const { number } = await send<{ number: number }>(page, '/api/trays', {
    trayId: crypto.randomUUID(),
    entryId: crypto.randomUUID(),
    ownerName: 'Boat Kitiwake',
    machineName: 'Anchor winch',
    stampedNumber: '',
    family: 'floatBowl',
    complaint: 'Floods',
    promisedDay: new Date(Date.now() + 5 * 86_400_000).toISOString().slice(0, 10),
  });
  await page.getByRole('link', { name: 'Owners' }).click();
  await page.getByRole('button', { name: 'Change: Boat Kitiwake' }).focus();
  await page.keyboard.press('Enter');
  await page.getByLabel('Owner', { exact: true }).fill('Boat Kittiwake');
  // What is typed is there after a reload.
  await page.reload();
  await page.getByRole('button', { name: 'Change: Boat Kitiwake' }).click();
  await expect(page.getByLabel('Owner', { exact: true })).toHaveValue('Boat Kittiwake');
  await page.getByLabel('Owner', { exact: true }).press('Enter');
  const row = page.getByRole('listitem', { name: 'Boat Kittiwake' });
  await expect(row).toBeVisible();
  await row.getByRole('button', { name: /^Change/ }).click();
  await page.getByLabel('To blank them, type Boat Kittiwake').fill('Boat Kittiwake');
  await page.keyboard.press('Enter');
  await expect(page.getByText(`Tray ${number} of theirs is on the bench. Hand back first.`)).toBeVisible();
});

test('what is promised falls on a day the shop is open, and a day it is shut is named', async ({ page }) => {
  await signIn(page, 'nessa', PASSWORD);
  await page.getByRole('link', { name: 'Rules' }).click();
  const open = page.getByRole('region', { name: 'Open' });
  // Every day but the one that would be promised otherwise, and that one named.
  const before = (await get(page, '/api/bench')) as { promisedDay: string };
  await open.getByLabel('Days and hours').fill('Mon-Fri 8');
  await open.getByLabel('Shut').fill(`${before.promisedDay} Regatta`);
  await open.getByRole('button', { name: 'Change it' }).click();
  await expect(open.getByText(/“Mon-Fri 8” cannot be read/)).toBeVisible();
  await expect(open.getByLabel('Shut')).toHaveValue(`${before.promisedDay} Regatta`);
  await open.getByLabel('Days and hours').fill('Mon-Sun 8-17');
  await open.getByLabel('Days and hours').press('Enter');
  await expect(open.getByRole('button', { name: 'Change it' })).toHaveCount(0);
  await expect(open.getByLabel('Days and hours')).toHaveValue('Mon-Sun 8:00-17:00');
  const next = new Date(Date.parse(before.promisedDay) + 86_400_000).toISOString().slice(0, 10);
  await page.goto('/check-in');
  await expect(page.getByLabel('Promised for')).toHaveValue(next);
  await page.getByLabel('Promised for').fill(before.promisedDay);
  await expect(page.getByText('The shop is shut that day: Regatta.')).toBeVisible();
});

test('a tray’s label fits the labels the shop’s printer takes', async ({ page }) => {
  await signIn(page, 'nessa', PASSWORD);
  await page.goto('/tray/1/check-in');
  await page.getByRole('link', { name: 'Label' }).click();
  await expect(page.getByRole('button', { name: 'Print' })).toBeFocused();
  const label = page.getByRole('article', { name: 'Label of tray 1' });
  await expect(label).toContainText('Deck pump');
  // 62 × 29 mm at 96 dots an inch, and nothing of it hangs out.
  const size = await label.boundingBox();
  expect([Math.round(size?.width ?? 0), Math.round(size?.height ?? 0)]).toEqual([234, 110]);
  expect(
    await label.evaluate((box) => box.scrollHeight <= box.clientHeight && box.scrollWidth <= box.clientWidth),
  ).toBe(true);
  const paper = await page.pdf({ preferCSSPageSize: true });
  expect(paper.toString('latin1')).toMatch(/MediaBox\s*\[\s*0 0 175\.\d+ 82\.\d+\s*\]/);
});

test('a bath and a maker’s date code are the shop’s own; what is wrong is said at its box', async ({ page }) => {
  await signIn(page, 'nessa', PASSWORD);
  await page.getByRole('link', { name: 'Rules' }).click();
  const baths = page.getByRole('region', { name: 'Baths' });
  await baths.getByRole('button', { name: 'Another bath' }).click();
  await baths.getByLabel('Name of bath 3').fill('Yard tub');
  await baths.getByLabel('Baskets').nth(2).fill('many');
  // Reload in the middle: nothing typed is lost.
  await page.reload();
  await expect(baths.getByLabel('Name of bath 3')).toHaveValue('Yard tub');
  await baths.getByRole('button', { name: 'Change it' }).click();
  await expect(baths.getByText(/“many” is not a number/)).toBeVisible();
  await baths.getByLabel('Baskets').nth(2).fill('6');
  await page.keyboard.press('Enter');
  await expect(baths.getByRole('button', { name: 'Change it' })).toBeHidden();
  const codes = page.getByRole('region', { name: 'Date codes' });
  await codes.getByRole('button', { name: 'Another maker' }).click();
  await codes.getByLabel('Maker').fill('Ostrel');
  await codes.getByLabel('Written').fill('yxx');
  await codes.getByLabel('Source').fill('seen on three of them');
  await page.keyboard.press('Enter');
  await expect(codes.getByText(/Write it letter by letter/)).toBeVisible();
  await codes.getByLabel('Written').fill('yddd');
  await page.keyboard.press('Enter');
  await expect(codes.getByRole('button', { name: 'Change it' })).toBeHidden();
  await page.getByRole('link', { name: 'Baths' }).click();
  await expect(page.getByRole('heading', { name: 'Yard tub' })).toBeVisible();
});

test('the shop moves to another place with everything but its passwords, and its report says the same there', async ({
  page,
  browser,
}) => {
  test.setTimeout(120_000);
  await signIn(page, 'nessa', PASSWORD);
  await page.getByRole('link', { name: 'Rules' }).click();
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Everything as one file' }).click();
  const archive = await (await download).path();
  const report = (await get(page, '/api/trays/1/report')) as object;

  const place = new OwnServer(await freePort(), emptyDatabases[1] ?? '', SETUP_CODE);
  await place.start();
  const context = await browser.newContext({ baseURL: place.url });
  try {
    const there = await context.newPage();
    await there.goto('/');
    await there.getByRole('button', { name: 'Move a shop here from its archive' }).click();
    await expect(there.getByLabel('Code from the terminal')).toBeFocused();
    for (const width of [390, 820, 1280]) {
      await there.setViewportSize({ width, height: 844 });
      for (const box of ['Archive', 'Name you sign in with', 'New password', 'Code from the terminal'])
        await reach(there, there.getByLabel(box));
      expect(await there.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(width);
    }
    await there.keyboard.type(SETUP_CODE);
    await there
      .getByLabel('Archive')
      .setInputFiles({ name: 'x.zip', mimeType: 'application/zip', buffer: Buffer.from('no') });
    await there.getByLabel('Name you sign in with').fill('nessa');
    await there.getByLabel('New password').fill('nine brass jets in a row');
    await there.keyboard.press('Enter');
    await expect(there.getByText('It is no ZIP file, or not all of it arrived. Nothing was changed.')).toBeVisible();
    // What was typed is still there.
    await there.getByLabel('Archive').setInputFiles(archive);
    await there.getByRole('button', { name: 'Move in' }).click();
    await expect(there.getByText('Lee Shore Workshop')).toBeVisible({ timeout: 30_000 });
    expect(await get(there, '/api/trays/1/report')).toEqual(report);
  } finally {
    await context.close();
    await place.stop();
  }
});

async function token(page: Page): Promise<string> {
  return ((await (await page.request.get('/api/session')).json()) as { token: string }).token;
}
