import { expect, test } from './test';
import { atStation, box, expectVerdict, fresh, get, line, note } from './bench';

test('a diaphragm carburetor is set: lever low, a crackling diaphragm, pops that tell, each put right at once', async ({
  page,
}) => {
  const tray = await atStation(page, 'jory', 'set', fresh('Auger'), 'D42-1060');
  const look = (label: string, answer: string) =>
    line(page, label).getByRole('radio', { name: answer, exact: true }).click();

  // One touch says it; a wrong one is put right by another.
  await look('Needle in the lever’s fork', 'Lever beside the head');
  await expectVerdict(page, 'Needle in the lever’s fork', 'Beside the head');
  await expect(line(page, 'Needle in the lever’s fork').getByText(/slide the fork around/)).toBeVisible();
  await look('Needle in the lever’s fork', 'In the fork');
  await expectVerdict(page, 'Needle in the lever’s fork', 'Hooked');

  // Depth below the face: more is lower.
  await box(page, 'Metering lever’s height', 'depth').fill('2.05');
  await page.keyboard.press('Enter');
  await expectVerdict(page, 'Metering lever’s height', 'Low');
  await expect(line(page, 'Metering lever’s height').getByText(/end up by 0.40 mm/)).toBeVisible();
  await box(page, 'Metering lever’s height', 'depth').fill('1.70');
  await page.keyboard.press('Enter');
  await expectVerdict(page, 'Metering lever’s height', 'Right');

  await look('Metering diaphragm flexed', 'Crackles or is stiff');
  await expectVerdict(page, 'Metering diaphragm flexed', 'Crackles');
  // It counts at Trace as well.
  await expect
    .poll(async () => JSON.stringify((await get(page, `/api/trays/${tray}/trace`)).trace))
    .toContain('metering-diaphragm-stiff');

  const pop = (n: number, what: string) => page.getByLabel(`Pop-off, pop ${n}, ${what}`, { exact: true });
  for (const [n, opened, shut] of [
    [1, '110', '70'],
    [2, '112', '71'],
    [3, '109', '69'],
  ] as const) {
    await pop(n, 'opened at').fill(opened);
    await pop(n, 'shut at').fill(shut);
  }
  await page.getByRole('button', { name: 'Record Pop-off' }).click();
  await expectVerdict(page, 'Pop-off', 'In window');
  // The boxes are free for the next three; what stands is seen in them.
  await expect(pop(1, 'opened at')).toHaveValue('');
  await expect(pop(1, 'opened at')).toHaveAttribute('placeholder', '110');
  await page
    .getByLabel('A gauge’s file, Pop-off')
    .setInputFiles({ name: 'flat.csv', mimeType: 'text/csv', buffer: Buffer.from('10\n12\n14\n16\n') });
  await expect(line(page, 'Pop-off').getByRole('status')).toHaveText('No pop in it');

  // A gauge that writes down what it shows: three times pumped up by 2 kPa until it lets go at about 70.
  const series = ['s,kPa'];
  let seconds = 0;
  for (const opens of [70, 72, 70]) {
    for (let kPa = 52; kPa <= opens; kPa += 2) series.push(`${(seconds += 0.25).toFixed(2)},${kPa}`);
    for (const kPa of [58, 51, 51, 50]) series.push(`${(seconds += 0.25).toFixed(2)},${kPa}`);
  }
  await page
    .getByLabel('A gauge’s file, Pop-off')
    .setInputFiles({ name: 'gauge.csv', mimeType: 'text/csv', buffer: Buffer.from(series.join('\n')) });
  await expect(pop(2, 'opened at')).toHaveValue('72.0 kPa');
  await expect(pop(3, 'opened at')).toHaveValue('70.0 kPa');
  await page.getByRole('button', { name: 'Record Pop-off' }).click();
  await expectVerdict(page, 'Pop-off', 'Low');
});

test('a float with fuel inside is told by whether it can still shut the needle', async ({ page }) => {
  await atStation(page, 'jory', 'set', fresh('Heavy pump'), '4107');
  await box(page, 'Float mass', 'mass').fill('11');
  await page.keyboard.press('Enter');
  await expectVerdict(page, 'Float mass', 'Fuel inside');
  await expect(
    line(page, 'Float mass').getByText(/4.8 g of fuel inside: it cannot shut against 300.0 mm of fuel/),
  ).toBeVisible();
  await line(page, 'Float mass')
    .getByRole('button', { name: /Why and history$/ })
    .click();
  await expect(line(page, 'Float mass').getByText(/Buoyancy of 14/)).toBeVisible();
});

test('a suction tank is only looked at, and handed back without any hold test', async ({ page }) => {
  const tray = await atStation(page, 'jory', 'set', fresh('Wash pump'), 'S3-140');
  const kit = page.getByRole('button', { name: /^Choose / }).first();
  await expect(page.getByRole('article', { name: 'Hold test' })).toBeHidden();
  for (const [label, answer] of [
    ['Screens of the pickup pipes', 'Air passes each'],
    ['Choke diaphragm’s chamber', 'Dry'],
    ['Springs of the choke diaphragm', 'Both right'],
    ['Holes of the tank gasket', 'All in line'],
    ['Tank top', 'Sound and flat'],
  ] as const) {
    await line(page, label).getByRole('radio', { name: answer, exact: true }).click();
    await expect(line(page, label).getByRole('button', { name: /Not read/ })).toBeHidden();
  }
  await expect(page.getByRole('link', { name: /^Set all good/ })).toBeVisible();
  await page.goto(`/tray/${tray}/gauge`);
  const { lines } = (await get(page, `/api/trays/${tray}`)) as { lines: { key: string; window: { low: number } }[] };
  const low = lines.find((one) => one.key === 'gauging/main-jet')?.window.low ?? 0;
  await box(page, 'Main jet', 'goes').fill(String(low));
  await box(page, 'Main jet', 'stops').fill(String(low + 0.01));
  await page.keyboard.press('Enter');
  await expectVerdict(page, 'Main jet', 'In gauge');
  await page.goto(`/tray/${tray}/kit`);
  await kit.click();
  await expect(page.getByText('Chosen for this tray')).toBeVisible();
  await note(page, tray, { kind: 'job', job: 'closed' });
  await page.goto(`/tray/${tray}/prove`);
  const record = (label: string) => page.getByRole('button', { name: `Record ${label}` }).click();
  await box(page, 'Fuel on, rocked', 'minutes').fill('4');
  await line(page, 'Fuel on, rocked').getByRole('radio', { name: 'Rocked', exact: true }).click();
  await line(page, 'Fuel on, rocked').getByRole('radio', { name: 'Dry' }).click();
  await record('Fuel on, rocked');
  await box(page, 'Governed speed', 'rpm').fill('3100');
  await record('Governed speed');
  await line(page, '“Hunts when warm”').getByRole('radio', { name: 'Gone', exact: true }).click();
  await record('“Hunts when warm”');
  await expectVerdict(page, '“Hunts when warm”', 'Gone');
  const { obstacles } = await get(page, `/api/trays/${tray}`);
  expect(obstacles).toEqual([]);
  await page.goto(`/tray/${tray}/hand-back`);
  await page.getByRole('button', { name: 'Hand it back' }).click();
  await expect(page.getByText('Handed back.', { exact: true }).first()).toBeVisible();
});
