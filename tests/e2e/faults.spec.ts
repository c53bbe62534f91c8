import { expect, test, type Locator, type Page } from './test';
import { box, fresh, get, send, signIn, signInByKeyboard, tabTo } from './bench';

const next = (page: Page): Locator => page.getByRole('region', { name: 'Next step' });
const causes = (page: Page): Locator => page.getByRole('region', { name: 'Causes still standing' });
const cause = (page: Page, label: string): Locator =>
  causes(page).getByRole('button', { name: new RegExp(`^${label}`) });

/** How likely a cause is said to be, in percent. */
async function likely(page: Page, label: string): Promise<number> {
  const words = await cause(page, label).innerText();
  return Number(/(\d+) %/.exec(words)?.[1] ?? 0);
}

/**
 * Arrow keys, one at a time: within a group they move the focus a moment later, and a key pressed before that and let
 * go after it presses nothing.
 */
async function arrowRight(page: Page, group: Locator, times: number): Promise<void> {
  const choices = group.locator('[role="radio"], button');
  const names = await choices.allInnerTexts();
  const start = names.indexOf(await page.locator(':focus').innerText());
  for (let i = 1; i <= times; i++) {
    await page.keyboard.press('ArrowRight');
    await expect(choices.nth((start + i) % names.length)).toBeFocused();
  }
}

/** Answers one question of the step that is shown, by keyboard. */
async function answer(page: Page, question: string, said: 'Yes' | 'No' | 'Could not tell'): Promise<void> {
  const group = next(page).getByRole('radiogroup', { name: question });
  await tabTo(page, group.getByRole('radio', { name: 'Yes' }), 200);
  await arrowRight(page, group, ['Yes', 'No', 'Could not tell'].indexOf(said));
  await page.keyboard.press('Space');
  await expect(group.getByRole('radio', { name: said })).toBeChecked();
}

/** “No” to whatever has not been answered yet, recorded. */
async function noToTheRest(page: Page): Promise<void> {
  const rest = next(page).getByRole('button', { name: 'No to the rest' });
  if (await rest.isVisible()) {
    await press(page, rest);
    return;
  }
  const group = next(page).getByRole('radiogroup').first();
  await tabTo(page, group.getByRole('radio', { name: 'Yes' }), 200);
  await arrowRight(page, group, 1);
  await press(page, next(page).getByRole('button', { name: 'Record' }));
}

async function press(page: Page, button: Locator): Promise<void> {
  await tabTo(page, button, 250);
  await page.keyboard.press('Enter');
}

async function checkInByKeyboard(page: Page, machine: string): Promise<number> {
  const keys = page.keyboard;
  await page.locator('#main').focus();
  await keys.press('n');
  await expect(page.getByRole('combobox', { name: 'Owner' })).toBeFocused();
  await keys.type('Stall 9, Fenna’s Fry');
  await tabTo(page, page.getByRole('combobox', { name: 'Machine' }));
  await keys.type(machine);
  await tabTo(page, page.getByLabel('Stamped number'));
  await keys.type('4107');
  const complaint = page.getByLabel('What the owner complains of').getByRole('button', { name: 'Will not start' });
  await tabTo(page, complaint);
  await arrowRight(page, page.getByLabel('What the owner complains of'), 3); // on to “Hunts”
  await keys.press('Space');
  await tabTo(page, page.getByRole('button', { name: 'Give it a tray' }));
  await keys.press('Enter');
  await expect(page).toHaveURL(/\/tray\/\d+\/trace$/);
  return Number(page.url().split('/').at(-2));
}

test('a machine that hunts is traced to a blocked idle jet and a torn gasket, by keyboard alone', async ({ page }) => {
  test.setTimeout(180_000);
  const keys = page.keyboard;
  await signInByKeyboard(page, 'jory');

  const machine = fresh('Fish-stall generator');
  const tray = await checkInByKeyboard(page, machine);
  await expect(next(page).getByText('Next best check')).toBeVisible();
  await expect(
    page.getByRole('region', { name: 'What was found' }).getByText('Owner, told to Jory Tamblyn'),
  ).toBeVisible();
  const atFirst = await likely(page, 'Idle jet blocked');
  expect(atFirst).toBeGreaterThan(5);

  // A handful of checks, each the one that is asked for; what is not asked for would be "no".
  for (let checks = 0; checks < 6; checks++) {
    if (!(await next(page).getByText('Next best check').isVisible())) break;
    const first = next(page).getByRole('button', { name: /^It is so|^Oil is changed/ });
    if (await first.isVisible()) await press(page, first);
    const part = next(page).getByRole('radiogroup', { name: 'Runs better on part choke?' });
    const asked = await next(page).getByRole('heading').innerText();
    if (await part.isVisible()) await answer(page, 'Runs better on part choke?', 'Yes');
    await noToTheRest(page);
    await expect(next(page).getByText(asked)).toBeHidden();
    const now = await likely(page, 'Idle jet blocked');
    if (now >= 40 && now > atFirst) break;
  }
  const traced = await likely(page, 'Idle jet blocked');
  expect(traced).toBeGreaterThan(atFirst);

  // The gauge reading at Gauge moves the ranking, and the trace says where it came from.
  await page.locator('#main').focus();
  for (let past = 0; past < 4; past++) await keys.press(']');
  await expect(page.getByRole('heading', { name: 'Gauge jets and emulsion tube' })).toBeVisible();
  await tabTo(page, box(page, 'Idle jet', 'stops'));
  await keys.type('0.25');
  await keys.press('Enter');
  await expect(page.getByText('Clear with a soft strand')).toBeVisible();
  await page.locator('#main').focus();
  for (let past = 0; past < 4; past++) await keys.press('[');
  await expect(
    page.getByRole('region', { name: 'What was found' }).getByRole('link', { name: 'Gauge' }).first(),
  ).toBeVisible();
  expect(await likely(page, 'Idle jet blocked')).toBeGreaterThanOrEqual(80);

  // A second fault appears and is kept apart.
  for (const found of [
    'Intake gasket torn, bubbled or missing',
    'Speed shifts when the intake joint is wetted or sealed',
  ]) {
    await tabTo(page, page.getByLabel('Add what you found'), 200);
    await keys.type(found);
    await press(page, page.getByRole('button', { name: 'It is there' }));
    await expect(page.getByRole('region', { name: 'What was found' }).getByText(found)).toBeVisible();
  }
  expect(await likely(page, 'Air leak at intake gasket')).toBeGreaterThanOrEqual(70);
  expect(await likely(page, 'Idle jet blocked')).toBeGreaterThanOrEqual(60);

  // Both are confirmed; nothing else is left.
  await press(page, cause(page, 'Idle jet blocked'));
  await press(page, causes(page).getByRole('button', { name: 'Yes, it was that' }));
  await expect(page.getByRole('region', { name: 'What was wrong' }).getByText('Idle jet blocked')).toBeVisible();
  await press(page, cause(page, 'Air leak at intake gasket'));
  await press(page, causes(page).getByRole('button', { name: 'Yes, it was that' }));
  await expect(page.getByText('What was wrong: 2 things')).toBeVisible();
  // What has to be so before it runs comes first, where nobody has looked since; then it is run.
  const before = next(page).getByText(/^Before it runs/);
  await expect(before.or(next(page).getByText('See what is left'))).toBeVisible();
  if (await before.isVisible()) {
    await noToTheRest(page);
  }
  await expect(next(page).getByText('See what is left')).toBeVisible();
  await noToTheRest(page);
  await expect(next(page).getByText('Nothing is left unexplained.')).toBeVisible();
  const report = await (await page.request.get(`/api/trays/${tray}/report`)).json();
  expect(report.faults.map((fault: { label: string }) => fault.label)).toHaveLength(2);

  // The next of its kind starts with better odds, and the switch shows what they would be without.
  await checkInByKeyboard(page, fresh('Fish-stall generator'));
  const schooled = await likely(page, 'Idle jet blocked');
  const shopHistory = causes(page).getByRole('radio', { name: 'On' });
  await tabTo(page, shopHistory, 250);
  await arrowRight(
    page,
    causes(page)
      .getByRole('radiogroup')
      .filter({ has: page.getByRole('radio', { name: 'On' }) }),
    1,
  );
  await keys.press('Space');
  await expect(causes(page).getByText(/of this sheet/)).toBeHidden();
  expect(schooled).toBeGreaterThan(await likely(page, 'Idle jet blocked'));
});

test('fuel in the oil stops every running check until it is changed', async ({ page }) => {
  await signIn(page, 'jory');
  await page.goto('/check-in');
  await page.getByRole('combobox', { name: 'Owner' }).fill('Boat Petrel');
  await page.getByRole('combobox', { name: 'Machine' }).fill(fresh('Oil pump'));
  await page.getByRole('radio', { name: 'Float bowl' }).click();
  await page.getByRole('radio', { name: 'Four-stroke' }).click();
  await page.getByRole('button', { name: 'Hunts' }).click();
  await page.getByRole('radio', { name: 'Over full or smells of fuel' }).click();
  await expect(page.getByText('Do not run this engine before its oil is changed.')).toBeVisible();
  await page.getByRole('button', { name: 'Give it a tray' }).click();
  await expect(page).toHaveURL(/\/trace$/);
  await page.getByRole('button', { name: /^Any other check/ }).click();
  // Somebody who wants to run it is first asked what has to be so before.
  const runIt = page.getByRole('button', { name: /^Do it: Run ten minutes/ });
  await runIt.click();
  await expect(next(page).getByText(/^Before “Run ten minutes/)).toBeVisible();
  await next(page).getByRole('button', { name: 'No to the rest' }).click();
  await expect(next(page).getByText(/^First: Fuel in the oil/)).toBeVisible();
  await expect(next(page).getByRole('button', { name: 'Record' })).toBeDisabled();
  await next(page).getByRole('button', { name: 'Oil is changed' }).click();
  await expect(next(page).getByText(/^First: Fuel in the oil/)).toBeHidden();
  await expect(next(page).getByRole('button', { name: 'Record' })).toBeEnabled();
});

/** A trace led by a script over the stateless endpoint: what is there is answered, what is advised is done. */
async function leadByScript(
  page: Page,
  start: { family: string; engine: string; choke: string; told: string[] },
  faults: Record<string, string[]>,
): Promise<{ mended: string[]; forNothing: string[]; ran: string[]; asked: string[]; last: string }> {
  interface Step {
    nextKind: string;
    nextCheckId: string | null;
    nextCauseId: string | null;
    nextAsks: string[];
    nextFirst: string | null;
    nextDo: string;
  }
  const { checks } = (await get(page, `/api/faults/knowledge?family=${start.family}&engine=${start.engine}`)) as {
    checks: { id: string; state: string; reveals: string[] }[];
  };
  const left = new Set(Object.keys(faults));
  const there = (finding: string): boolean => [...left].some((fault) => faults[fault]?.includes(finding));
  const answered = (ids: string[]) =>
    ids.map((findingId) => ({ findingId, said: there(findingId) ? 'present' : 'absent' }));
  const log = {
    mended: [] as string[],
    forNothing: [] as string[],
    ran: [] as string[],
    asked: [] as string[],
    last: '',
  };
  const steps: object[] = [];
  for (let i = 0; i < 60; i++) {
    const now = await send<Step>(page, '/api/compute/fault-trace', {
      ...start,
      told: undefined,
      answers: start.told.map((findingId) => ({ findingId, said: 'present' })),
      fromOwner: true,
      steps,
    });
    log.last = now.nextDo;
    if (now.nextFirst) steps.push({ kind: 'safety', condition: now.nextFirst });
    if (now.nextKind === 'check') {
      const check = checks.find(({ id }) => id === now.nextCheckId);
      if (check?.state === 'running') log.ran.push(`${check.id} with ${[...left].join(' ')}`);
      log.asked.push(now.nextCheckId ?? '');
      const story = now.nextCheckId === 'owner-story';
      steps.push({
        kind: 'findings',
        checkId: now.nextCheckId,
        fromOwner: story,
        // An owner has said what they have to say.
        answers: story
          ? start.told.map((findingId) => ({ findingId, said: 'present' }))
          : answered(check?.reveals ?? []),
      });
    } else if (now.nextKind === 'recheck') {
      const all = [...new Set([...now.nextAsks, ...start.told])];
      steps.push({
        kind: 'findings',
        checkId: null,
        answers: answered(now.nextDo.includes('run:') ? all : now.nextAsks),
      });
    } else if (now.nextKind === 'fix' || (now.nextKind === 'refer' && now.nextCauseId)) {
      const was = left.delete(now.nextCauseId ?? '');
      (was ? log.mended : log.forNothing).push(now.nextCauseId ?? '');
      steps.push({ kind: 'fault', causeId: now.nextCauseId, outcome: was ? 'fixed' : 'notIt' });
    } else return log;
  }
  return log;
}

test('a machine that leaks and smokes is not run before oil and leak are settled; one that is stuck is not pulled', async ({
  page,
}) => {
  await signIn(page, 'jory');
  await page.goto('/check-in');
  await page.getByRole('combobox', { name: 'Owner' }).fill('Boat Petrel');
  await page.getByRole('combobox', { name: 'Machine' }).fill(fresh('Smoky pump'));
  await page.getByRole('radio', { name: 'Float bowl' }).click();
  await page.getByRole('radio', { name: 'Four-stroke' }).click();
  const complaints = page.getByLabel('What the owner complains of');
  await complaints.getByRole('button', { name: 'Leaks fuel' }).click();
  await complaints.getByRole('button', { name: 'White or blue smoke' }).click();
  await page.getByRole('button', { name: 'Give it a tray' }).click();
  await expect(page).toHaveURL(/\/trace$/);
  const tray = Number(page.url().split('/').at(-2));
  const running = async (): Promise<string[]> =>
    (
      (await get(page, `/api/trays/${tray}/trace`)) as {
        trace: { checks: { check: { id: string; state: string } }[] };
      }
    ).trace.checks
      .filter(({ check }) => check.state === 'running')
      .map(({ check }) => check.id);
  expect(await running()).toEqual([]);
  await page.getByRole('button', { name: /^Any other check/ }).click();
  await expect(page.getByRole('button', { name: /^Do it: Read the oil/ })).toBeVisible();
  await expect(page.getByRole('button', { name: /^Do it: Run ten minutes/ })).toHaveCount(0);
  await expect(page.getByRole('button', { name: /^Do it: Give the throat/ })).toHaveCount(0);
  // By script: whatever the trace advises until all is mended, nothing ran while it leaked.
  const log = await leadByScript(
    page,
    { family: 'floatBowl', engine: 'fourStroke', choke: 'manual', told: ['leaks-fuel', 'oil-smoke'] },
    {
      'inlet-needle-leaking': [
        'leaks-fuel',
        'oil-smoke',
        'fuel-in-oil',
        'inlet-fails-hold',
        'fuel-from-overflow',
        'bowl-flooded',
        'plug-wet',
      ],
    },
  );
  expect(log.mended).toEqual(['inlet-needle-leaking']);
  expect(log.ran).toEqual([]);
  expect(log.last).toContain('Nothing is left unexplained');
  // Stuck: turned by hand before anything else, freed, and only then started.
  const stuck = await leadByScript(
    page,
    { family: 'floatBowl', engine: 'fourStroke', choke: 'manual', told: ['wont-start'] },
    { 'engine-stuck': ['wont-start', 'engine-locked'] },
  );
  expect(stuck.mended).toEqual(['engine-stuck']);
  expect(stuck.ran).toEqual([]);
  expect(stuck.asked.indexOf('turn-by-hand')).toBeLessThan(3);
});

test('three faults of one machine are followed to the end, by a script', async ({ page }) => {
  await signIn(page, 'jory');
  const log = await leadByScript(
    page,
    { family: 'floatBowl', engine: 'fourStroke', choke: 'manual', told: ['wont-start'] },
    {
      'engine-stuck': ['wont-start', 'engine-locked'],
      'main-jet-blocked': ['wont-start', 'fires-on-prime', 'main-jet-dark', 'main-jet-small'],
      'fuel-stale': ['wont-start', 'fuel-smells-stale'],
    },
  );
  expect([...log.mended].sort()).toEqual(['engine-stuck', 'fuel-stale', 'main-jet-blocked']);
  expect(log.last).toContain('Nothing is left unexplained');
});

test('a doubtful finding weighs less, and a finding can be taken back', async ({ page }) => {
  await signIn(page, 'jory', '/tray/29/trace');
  const found = page.getByRole('region', { name: 'What was found' });
  await page.getByLabel('Add what you found').fill('Plug sooty');
  await page.getByRole('button', { name: 'It is there' }).click();
  const row = found.getByRole('listitem').filter({ hasText: 'Plug sooty' });
  await expect(row).toBeVisible();
  await page.getByRole('button', { name: /more$/ }).first().click();
  await row.getByRole('button', { name: 'Doubtful' }).click();
  await expect(row.getByText(/, doubtful/)).toBeVisible();
  await row.getByRole('button', { name: 'Take back: Plug sooty' }).click();
  await expect(row).toBeHidden();
});

test('answers half given survive a reload', async ({ page }) => {
  await signIn(page, 'jory');
  await page.goto('/check-in');
  await page.getByRole('combobox', { name: 'Owner' }).fill('Boat Petrel');
  await page.getByRole('combobox', { name: 'Machine' }).fill(fresh('Half pump'));
  await page.getByRole('radio', { name: 'Float bowl' }).click();
  await page.getByRole('button', { name: 'Hunts' }).click();
  await page.getByRole('button', { name: 'Give it a tray' }).click();
  await expect(page).toHaveURL(/\/trace$/);
  const group = next(page).getByRole('radiogroup').first();
  await group.getByRole('radio', { name: 'No', exact: true }).click();
  await page.reload();
  await expect(
    next(page).getByRole('radiogroup').first().getByRole('radio', { name: 'No', exact: true }),
  ).toBeChecked();
});

test('a photo goes with the check-in, and the machine is known when it comes back', async ({ page }) => {
  await signIn(page, 'tam');
  await page.goto('/check-in');
  await page.getByRole('combobox', { name: 'Owner' }).fill('Harbour office');
  await page.getByRole('combobox', { name: 'Machine' }).fill('Quay lamp generator');
  await expect(page.getByRole('region', { name: 'Here before' }).getByText(/It was: Idle jet blocked/)).toBeVisible();
  await page.getByRole('radio', { name: 'Float bowl' }).click();
  await page.getByRole('button', { name: 'Will not idle' }).click();
  // A one-pixel PNG.
  const png = Buffer.from(
    'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
    'base64',
  );
  await page.getByLabel('Add photos').setInputFiles({ name: 'throat.png', mimeType: 'image/png', buffer: png });
  await expect(page.getByText('1 photo to go with it')).toBeVisible();
  await page.getByRole('button', { name: 'Give it a tray' }).click();
  await expect(page).toHaveURL(/\/trace$/);
  await page
    .getByRole('navigation', { name: 'Stations' })
    .getByRole('link', { name: /^Check in/ })
    .click();
  await expect(page.getByRole('region', { name: 'Photos' }).getByRole('img')).toBeVisible();
  await page
    .getByLabel('Add photos')
    .setInputFiles({ name: 'notes.png', mimeType: 'image/png', buffer: Buffer.from('no picture') });
  await expect(page.getByText(/not a JPEG, PNG or WebP picture/)).toBeVisible();
});

test('a machine that dies after minutes is timed, and the coil that another shop blames is tested and not believed', async ({
  page,
}) => {
  await signIn(page, 'jory', '/check-in');
  await page.getByRole('combobox', { name: 'Owner' }).fill('Boat Petrel');
  await page.getByRole('combobox', { name: 'Machine' }).fill(fresh('Quay generator'));
  await page.getByRole('radio', { name: 'Float bowl' }).click();
  await page.getByRole('radio', { name: 'Four-stroke' }).click();
  await page.getByRole('radio', { name: 'Heat' }).click();
  await expect(page.getByLabel('Dies after, minutes')).toBeHidden();
  await page.getByRole('button', { name: 'Dies after some minutes' }).click();
  await page.getByLabel('Dies after, minutes').fill('4,5');
  await page.getByRole('radio', { name: 'Another shop' }).click();
  await page.getByRole('button', { name: 'Something was tried' }).click();
  const tried = page.getByRole('group', { name: 'Tried before, 1' });
  await tried.getByLabel('What was done').selectOption({ label: 'Renew the plug (spark plug fouled or failed)' });
  await tried.getByLabel('Who').selectOption('Another shop');
  await tried.getByLabel('What came of it').selectOption('No help');
  await page.getByText('More of the story').click();
  await page.getByRole('button', { name: 'Somebody says what is wrong' }).click();
  const offered = page.getByRole('group', { name: 'Said to be wrong, 1' });
  await offered.getByLabel('What is said to be wrong').selectOption('Ignition coil fails hot');
  await offered.getByLabel('Who').selectOption('Another shop');
  await page.getByRole('radio', { name: 'To sell on' }).click();
  // Nothing typed is lost by a reload.
  await page.reload();
  await expect(page.getByLabel('Dies after, minutes')).toHaveValue('4,5');
  await expect(tried.getByLabel('What came of it')).toHaveValue('noHelp');
  await page.getByRole('button', { name: 'Give it a tray' }).click();
  await expect(page).toHaveURL(/\/trace$/);
  const number = Number(page.url().split('/').at(-2));
  const told = page.getByRole('region', { name: 'Tried or said before' });
  await expect(told.getByText('Another shop says: ignition coil fails hot')).toBeVisible();
  await expect(told.getByText('Tried for: spark plug fouled or failed')).toBeVisible();
  const coil = await likely(page, 'Ignition coil fails hot');
  // What has to be so before it runs is asked first; then its minutes are timed.
  await page.getByRole('button', { name: /Any other check/ }).click();
  await page.getByRole('button', { name: /Do it: Run ten minutes/ }).click();
  await next(page).getByRole('button', { name: 'No to the rest' }).click();
  await expect(next(page).getByRole('article', { name: 'Minutes to failure' })).toBeVisible();
  const start = Date.now();
  await page.clock.setFixedTime(start);
  await next(page).getByRole('button', { name: 'Start the clock, Minutes to failure' }).click();
  await page.clock.setFixedTime(start + 4 * 60_000);
  await next(page).getByRole('button', { name: 'Note: choke at' }).click();
  await expect(box(page, 'Minutes to failure', 'choke at')).toHaveValue('4');
  // It goes on through a reload.
  await page.clock.setFixedTime(start + 4.2 * 60_000);
  await page.reload();
  await page.getByRole('button', { name: 'Stop the clock, Minutes to failure' }).click();
  await page.clock.setFixedTime(Date.now());
  await expect(box(page, 'Minutes to failure', 'ran for')).toHaveValue('4.2');
  const minutes = page.getByRole('article', { name: 'Minutes to failure' });
  await minutes.getByRole('radio', { name: 'Died by itself' }).click();
  await minutes.getByRole('button', { name: 'Record Minutes to failure' }).click();
  await expect(minutes.getByRole('button', { name: /Dies as the choke opens/ })).toBeVisible();
  const found = page.getByRole('region', { name: 'What was found' });
  await expect(found.getByText('Falters or dies as the choke opens')).toBeVisible();
  await expect(told.getByText(/weighs nothing until it is looked at/)).toBeVisible();
  expect(coil).toBeGreaterThan(3);
  const trace = (await get(page, `/api/trays/${number}/trace`)) as {
    trace: { causes: { cause: { id: string; circuit: string }; probability: number }[] };
  };
  const now = Object.fromEntries(trace.trace.causes.map((one) => [one.cause.id, one.probability]));
  expect(100 * (now['coil-heat-fade'] ?? 0)).toBeLessThan(coil / 2);
  expect(trace.trace.causes[0]?.cause.circuit).toBe('main');
  // Prove knows how long it took to fail.
  await page.goto(`/tray/${number}/prove`);
  const tries = page.getByRole('article', { name: '“Dies after some minutes”' });
  await tries.getByRole('textbox', { name: /ran for/ }).fill('4');
  await tries.getByRole('radio', { name: 'Gone' }).click();
  await expect(tries.getByRole('button', { name: /Cannot tell yet/ })).toBeVisible();
  await tries.getByRole('textbox', { name: /ran for/ }).fill('9');
  await expect(tries.getByRole('button', { name: /: Gone/ })).toBeVisible();
});

test('compression between worn and good neither clears nor condemns, and is not asked for again', async ({ page }) => {
  await signIn(page, 'jory');
  const { number } = await send<{ number: number }>(page, '/api/trays', {
    trayId: crypto.randomUUID(),
    entryId: crypto.randomUUID(),
    ownerName: 'Boat Petrel',
    machineName: fresh('Net washer'),
    family: 'diaphragm',
    engine: 'twoStroke',
    choke: 'manual',
    complaint: 'Low on power',
    promisedDay: new Date(Date.now() + 5 * 86_400_000).toISOString().slice(0, 10),
    story: { complaints: ['low-power'], stoodFor: 'notSaid', workedOnBy: 'notSaid', oil: 'notLooked', fuel: 'notSaid' },
  });
  await page.goto(`/tray/${number}/trace`);
  await page.getByRole('button', { name: /Any other check/ }).click();
  await page.getByRole('button', { name: /Do it: Compression gauge/ }).click();
  const line = page.getByRole('article', { name: 'Compression' });
  const first = next(page).getByRole('button', { name: 'It is so' });
  if (await first.isVisible()) await first.click();
  await box(page, 'Compression', 'dry').fill('60 psi');
  await box(page, 'Compression', 'pulls').fill('6');
  await line.getByRole('radio', { name: 'Throttle wide open' }).click();
  await expect(line.getByText(/Too few pulls/)).toBeVisible();
  await box(page, 'Compression', 'pulls').fill('12');
  await expect(line.getByText(/neither clears nor condemns/)).toBeVisible();
  await line.getByRole('button', { name: 'Record Compression' }).click();
  // Recorded, and another check leads now.
  await expect(page.getByRole('region', { name: 'Quick tests' })).toBeVisible();
  await expect(page.getByRole('button', { name: /Do it: Compression gauge/ })).toHaveCount(0);
});
