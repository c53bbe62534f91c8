import { expect, test, type Page } from './test';
import { atStation, checkIn, fresh, signIn, stocked, tabTo } from './bench';

const step = (page: Page, name: string) =>
  page.getByRole('navigation', { name: 'Kit' }).getByRole('link', { name: new RegExp(`^${name}`) });
const kit = (page: Page, number: string) =>
  page
    .getByRole('listitem')
    .filter({ has: page.getByRole('button', { name: `Part by part: ${number}`, exact: true }) });

test('a clean stamp finds its sheet at once, and its date code says when it was made', async ({ page }) => {
  const tray = await atStation(page, 'jory', 'kit', fresh('Clean pump'), '4118');
  // One sheet bears exactly this number: it is the tray's already, and the kits are matched.
  await expect(page.getByText('Every part agrees. Listed for 4118.')).toBeVisible();
  await step(page, 'Identify').click();
  await expect(page.getByRole('button', { name: /FB20.*this very number/, pressed: true })).toBeVisible();
  await page.getByLabel('Date code').fill('8O45');
  await expect(page.getByRole('list', { name: 'Made' })).toContainText(
    'Made 14 February 1998 or 14 February 2008 or 14 February 2018, look-alikes put right',
  );
  await page.reload(); // what was typed is kept
  await expect(page.getByLabel('Date code')).toHaveValue('8O45');
  await page.goto(`/tray/${tray}/kit/identify`);
  await page.getByLabel('Engine plate').fill('k9O/42O');
  await expect(page.getByRole('list', { name: 'By the engine plate' })).toContainText('FB20');
});

test('a misread stamp ranks candidates and lights up what differs, by keyboard', async ({ page }) => {
  await atStation(page, 'jory', 'kit', fresh('Misread pump'), '');
  await stocked(page, 'CK-419');
  const stamped = page.getByLabel('Stamped number');
  await tabTo(page, stamped);
  await page.keyboard.type('D38-2?O4');
  const found = page.getByRole('list', { name: 'By the stamp' }).getByRole('listitem');
  await expect(found.first()).toContainText('Corvane sheet DM38');
  await expect(found.first()).toContainText('D38-2204, 2 could not be read, 0 looks alike');
  await tabTo(page, found.first().getByRole('button', { name: /^Take DM38: / }));
  await page.keyboard.press('Enter');
  await expect(page.getByText('diaphragm, stamped D38-2?O4')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Choose it: CK-419', exact: true })).toBeVisible();
});

test('with no stamp it is found by measuring, the most telling measure asked first', async ({ page }) => {
  await signIn(page, 'marit'); // works in inches
  await checkIn(page, fresh('Nameless auger'), '');
  await page.getByRole('radio', { name: 'diaphragm' }).click();
  await expect(page.getByText(/Tells most now/)).toBeVisible();
  await page.getByLabel('How far apart are the flange bolts?').fill('wide');
  await expect(page.getByText('“wide” is not a number.')).toBeVisible();
  await page.getByLabel('How far apart are the flange bolts?').fill('1.378');
  await page.getByLabel('How wide is the throat?').fill('.5');
  const left = page.getByRole('list', { name: 'By its measures' }).getByRole('listitem');
  await expect(left.first()).toContainText('DM46');
  await expect(left.first()).toContainText('throat 0.500 in');
  await page.reload();
  await expect(left.first()).toContainText('DM46');
  await left
    .first()
    .getByRole('button', { name: /^Take DM46: / })
    .click();
  await expect(page.getByRole('heading', { name: 'Kits, best fit first' })).toBeVisible();
  await expect(page.getByText('diaphragm, stamp not read')).toBeVisible();
});

test('a near miss is avoided: the old part on the bench says what is wrong with it', async ({ page }) => {
  await atStation(page, 'jory', 'kit', fresh('Post auger'), '');
  await page.getByLabel('Stamped number').fill('MR1-601');
  await page.getByRole('button', { name: /^Take MR1: / }).click();
  await page.getByRole('button', { name: 'Measure the old metering diaphragm' }).click();
  const dialog = page.getByRole('dialog', { name: 'The old metering diaphragm' });
  await dialog.getByLabel('outer').fill('36 cubits');
  await dialog.getByRole('radio', { name: 'raised button' }).click();
  await dialog.getByRole('button', { name: 'Record it' }).click();
  await expect(dialog.getByText(/does not fit here/)).toBeVisible();
  await page.reload(); // half typed, and kept
  await page.getByRole('button', { name: 'Measure the old metering diaphragm' }).click();
  await expect(dialog.getByLabel('outer')).toHaveValue('36 cubits');
  await dialog.getByLabel('outer').fill('36.1');
  await dialog.getByRole('button', { name: 'Record it' }).click();
  await expect(page.getByRole('button', { name: 'Measure the old metering diaphragm, 2 measured' })).toBeVisible();
  const items = page.getByRole('button', { name: /^Part by part: / });
  await expect(items.first()).toBeVisible();
  const near = page
    .getByRole('listitem')
    .filter({ hasText: 'Does not fit.' })
    .filter({ hasText: 'Listed for MR1-601' })
    .first();
  await expect(near).toContainText(/All but the .*: (yours|the sheet says) .*, this one /);
  await near.getByRole('button', { name: /^Part by part/ }).click();
  await expect(near.getByRole('cell', { name: /^does not fit: / })).toBeVisible();
  // The one that fits stands first and is the one to take.
  await expect(page.getByRole('listitem').filter({ hasText: 'Every part agrees.' }).first()).toBeVisible();
});

test('a superseded kit is followed to what took its place', async ({ page }) => {
  await atStation(page, 'jory', 'kit', fresh('Old kit pump'), '3088');
  await expect(kit(page, 'OK-117')).toContainText(
    'No longer made. OK-118 takes its place: needle with a clip instead of one without.',
  );
  await expect(kit(page, 'OK-118')).toContainText('Takes the place of OK-117');
});

test('what to fit is decided side by side, within the limits, and the sum opens in full', async ({ page }) => {
  const tray = await atStation(page, 'jory', 'kit', fresh('Dear pump'), '4107');
  await step(page, 'Decide').click();
  for (const part of ['needle', 'seat', 'O-ring', 'bowl nut washer']) {
    await page
      .getByRole('toolbar', { name: 'Parts to renew' })
      .getByRole('button', { name: part, exact: true })
      .click();
  }
  await page.getByRole('button', { name: 'Enter it: Owner agreed to' }).click();
  await page.getByLabel('Owner agreed to').fill('lots');
  await expect(page.getByText('Give an amount such as 45')).toBeVisible();
  await page.getByLabel('Owner agreed to').fill('30');
  await page.keyboard.press('Enter');
  await expect(page.getByText('£30.00')).toBeVisible();
  await page.getByRole('button', { name: 'Enter it: Machine is worth' }).click();
  await page.getByLabel('Machine is worth').fill('90');
  await page.keyboard.press('Enter');
  const options = page.getByRole('list', { name: 'Options' }).getByRole('listitem');
  await expect(options.filter({ hasText: 'Maker’s carburetor' })).toContainText('over what the owner agreed to');
  await expect(options.filter({ hasText: 'Maker’s carburetor' })).toContainText(
    'over what the machine is worth to mend',
  );
  await expect(page.getByText(/^Advised: /)).toBeVisible();
  await page.getByRole('button', { name: 'the sum: Pattern carburetor' }).click();
  await expect(page.getByText(/8 of 14 that came back/)).toBeVisible();
  await expect(options.filter({ hasText: 'Decline' })).toContainText('Nothing is charged');
  await page.getByRole('button', { name: 'Choose it: Make it' }).click();
  await expect(page.getByText('Chosen for this tray: make it')).toBeVisible();
  await page.reload();
  await expect(
    page.getByRole('toolbar', { name: 'Parts to renew' }).getByRole('button', { pressed: true }),
  ).toHaveCount(1);
  await expect(page.getByText('Made here: bowl gasket from sheet gasket')).toHaveCount(0);
  await page.goto(`/tray/${tray}/check-in`);
  await expect(page.getByText(/Made here: bowl gasket from sheet gasket/).first()).toBeVisible();
});
