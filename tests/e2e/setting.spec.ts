import { expect, test } from './test';
import { atStation, box, expectVerdict, fresh, get, line, note, send } from './bench';

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

  const pop = (n: number, what: string) => page.getByLabel(`Pop-off, pop ${n}, ${what}`);
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
  // What stands stays in its boxes, to be looked at and typed over.
  await expect(pop(1, 'opened at')).toHaveValue('110');
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

test('an uneven float is put right by the bend that is stated, and the drawing follows', async ({ page }) => {
  await atStation(page, 'jory', 'set', fresh('Tilted pump'), '4107');
  const heights = async (at: (angle: number) => number): Promise<void> => {
    for (const angle of [0, 120, 240]) await page.getByLabel(`Float height at ${angle}°`).fill(at(angle).toFixed(2));
    await page.getByRole('button', { name: 'Record Float height' }).click();
  };
  const radians = (degrees: number): number => (degrees * Math.PI) / 180;
  const tilted = (angle: number): number => 14 + 0.55 * Math.cos(radians(angle - 200));
  await heights(tilted);
  await expectVerdict(page, 'Float height', 'Uneven');
  const advice = (await line(page, 'Float height').textContent()) ?? '';
  const [, higher, side, half] =
    /stands ([\d.]+) mm higher at (\d+)°. Bend that side ([\d.]+) mm toward the body/.exec(advice) ?? [];
  expect(Number(half)).toBeCloseTo(Number(higher) / 2, 1);
  await expect(page.getByText('fuel 21.8 mm below the face, as meant')).toBeVisible();
  await heights((angle) => tilted(angle) - Number(half) * Math.cos(radians(angle - Number(side))));
  await expectVerdict(page, 'Float height', 'Level');

  // Too far from the body: the bend moves it back, and the fuel stands where it is meant to.
  await heights(() => 15.2);
  await expectVerdict(page, 'Float height', 'Too far from the body');
  await expect(page.getByText('fuel 23.0 mm below the face, 1.2 mm low')).toBeVisible();
  const bend = Number(
    /Bend the tab ([\d.]+) mm away/.exec((await line(page, 'Float height').textContent()) ?? '')?.[1],
  );
  await heights(() => 15.2 - (bend * 24) / 8);
  await expectVerdict(page, 'Float height', 'Level');
});

test('a new plunger that weeps waits two days, calls, and is tight', async ({ page }) => {
  const machine = fresh('Weeping pump');
  const tray = await atStation(page, 'jory', 'prove', machine, '4107');
  await note(page, tray, { kind: 'job', job: 'closed' });
  await page.reload();
  await page.getByRole('button', { name: 'Start the clock, Fuel on, rocked' }).click();
  // The clock goes on through a reload.
  await page.reload();
  await page.getByRole('button', { name: 'Stop the clock, Fuel on, rocked' }).click();
  await expect(box(page, 'Fuel on, rocked', 'minutes')).toHaveValue(/^0(\.\d)?$/);
  // Where it leaks is tapped on the drawing.
  await page.getByRole('button', { name: 'Wet at bowl joint', exact: true }).click();
  await expect(line(page, 'Fuel on, rocked').getByRole('radio', { name: 'Wet at bowl joint' })).toBeChecked();
  // What is typed would be judged in place of what stands.
  await page.getByRole('button', { name: 'Drop what was typed for Fuel on, rocked' }).click();
  await expect(line(page, 'Fuel on, rocked').getByRole('radio', { name: 'Wet at bowl joint' })).not.toBeChecked();
  const watched = (leak: string) => ({
    kind: 'reading',
    line: 'proving/fuel-on',
    typed: { units: 'metric', values: { minutes: '4', rocked: 'yes', leak }, rows: [] },
  });
  // Only a new part may weep: one has to have gone in.
  await note(page, tray, { kind: 'out', part: 'plunger', verdict: 'renew' });
  await note(page, tray, { kind: 'back', part: 'plunger', fate: 'made' });
  // First seen two days ago, by the clock of the device.
  const entry = {
    id: crypto.randomUUID(),
    takenAt: new Date(Date.now() - 2 * 86_400_000).toISOString(),
    note: watched('newPart'),
  };
  await send(page, `/api/trays/${tray}/notes`, { entries: [entry] });
  expect((await get(page, `/api/trays/${tray}`)).facts.waitsFor).toBe('bedIn');
  await page.goto('/');
  const called = page.getByRole('region', { name: 'Next for your hands' }).getByRole('link', { name: machine });
  await expect(called).toContainText('It has had its days to bed in');
  await note(page, tray, watched('dry'));
  await page.goto(`/tray/${tray}/prove`);
  await expectVerdict(page, 'Fuel on, rocked', 'Dry');
  expect((await get(page, `/api/trays/${tray}`)).facts.waitsFor).toBe('hands');
});

test('one series of the gauge gives the pops and the hold after them', async ({ page }) => {
  await atStation(page, 'jory', 'set', fresh('Series auger'), 'D42-1060');
  const pressures: number[] = [];
  for (const opens of [110, 112, 109]) {
    for (let kPa = 70; kPa <= opens; kPa += 2) pressures.push(kPa);
    pressures.push(90, 72, 70, 70, 70);
  }
  // Watched for 14 s where it shut.
  for (let i = 0; i < 56; i++) pressures.push(70);
  await send(page, '/api/instruments/pressure-gauge', {
    timesS: pressures.map((_, i) => i / 4),
    values: pressures,
    goesOn: false,
  });
  await page.getByRole('button', { name: 'From the gauge, Pop-off' }).click();
  await expect(page.getByLabel('Pop-off, pop 3, shut at')).toHaveValue('70.0 kPa');
  await page.getByRole('button', { name: 'Record Pop-off' }).click();
  await expectVerdict(page, 'Pop-off', 'In window');
  await page.getByRole('button', { name: 'From the gauge, Hold test' }).click();
  await page.getByRole('button', { name: 'Record Hold test' }).click();
  await expectVerdict(page, 'Hold test', 'Held');
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
  // Its choke is tried by tests of its own.
  const choke = (key: string, values: object) =>
    note(page, tray, {
      kind: 'reading',
      line: `chokes/${key}`,
      typed: { units: 'metric', values, rows: [] },
    });
  await choke('vacuum-rest', { seen: 'shut' });
  await choke('vacuum-eases', { seen: 'eases' });
  await choke('cleaner-screw', { seen: 'in' });
  await choke('opening', { open: '2.2', end: 'ranOn' });
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
  // What is shown at once is on its way to the server.
  await expect.poll(async () => (await get(page, `/api/trays/${tray}`)).obstacles).toEqual([]);
  await page.goto(`/tray/${tray}/hand-back`);
  await page.getByRole('button', { name: 'Hand it back' }).click();
  await expect(page.getByText('Handed back.', { exact: true }).first()).toBeVisible();
});
