import { expect, test, type Locator, type Page } from './test';
import { atStation, checkIn, fresh, get, note, notes, signIn, stocked } from './bench';

const form = (page: Page, part: string) => page.getByRole('group', { name: `Fit: ${part}`, exact: true });

interface Line {
  part: { key: string; label: string };
}

/** A diaphragm carburetor with its kit, in pieces. */
async function diaphragmInPieces(page: Page): Promise<number> {
  await stocked(page, 'CK-419');
  const tray = await checkIn(page, fresh('Auger'), 'D38-2204');
  await page.getByRole('button', { name: 'Choose it: CK-419', exact: true }).click();
  await expect(page.getByText('Chosen for this tray')).toBeVisible();
  await note(page, tray, { kind: 'job', job: 'full' });
  const { lines, usual } = (await get(page, `/api/trays/${tray}/ledger`)) as {
    lines: Line[];
    usual: Record<string, string>;
  };
  await notes(
    page,
    tray,
    lines.map(({ part }) => ({ note: { kind: 'out', part: part.key, verdict: usual[part.key] } })),
  );
  return tray;
}

/** Presses what records a line and waits until the server has it: the page goes on before. */
async function record(page: Page, button: Locator): Promise<void> {
  const sent = page.waitForResponse(
    (answer) => answer.url().endsWith('/notes') && answer.request().method() === 'POST',
  );
  await button.click();
  await sent;
}

/** Puts the next parts in as they should be, by what Core says goes in next. */
async function fitted(page: Page, tray: number, parts: number): Promise<void> {
  for (let i = 0; i < parts; i++) {
    const { advice, lines } = (await get(page, `/api/trays/${tray}/ledger`)) as {
      advice: { part: string; rightWay: { key: string } | null }[];
      lines: (Line & { found: { verdict: string } | null })[];
    };
    const part = advice[0]?.part ?? '';
    const isNew = lines.find((line) => line.part.key === part)?.found?.verdict === 'renew';
    const from = isNew ? { fate: 'renewed', item: 'CK-419' } : { fate: 'refitted' };
    await note(page, tray, { kind: 'back', part, way: advice[0]?.rightWay?.key, ...from });
  }
}

test('a diaphragm carburetor: a forgotten screen and a plate upside down are caught, and nothing is proven meanwhile', async ({
  page,
}) => {
  await signIn(page, 'jory');
  const tray = await diaphragmInPieces(page);
  // Needle and lever, then the metering side up to its diaphragm.
  await fitted(page, tray, 4);
  await page.goto(`/tray/${tray}/build`);
  const diaphragm = form(page, 'metering diaphragm');
  await expect(diaphragm.getByText('Plate toward the lever?')).toBeVisible();
  await diaphragm.getByRole('button', { name: /^It is in, from CK-419/ }).click();
  await expect(diaphragm.getByText(/Say which way round it went in/)).toBeVisible();
  await diaphragm.getByRole('radio', { name: 'Plate toward the cover' }).click();
  await diaphragm.getByRole('button', { name: /^It is in, from CK-419/ }).click();
  const caught = page.getByRole('alert');
  await expect(caught.getByText('Metering diaphragm went in wrong: plate toward the cover.')).toBeVisible();
  await expect(caught.getByText(/lean or not at all/)).toBeVisible();
  await page.getByRole('button', { name: 'Take out: metering diaphragm' }).click();
  await diaphragm.getByRole('radio', { name: 'Plate toward the lever' }).click();
  await record(page, diaphragm.getByRole('button', { name: /^It is in, from CK-419/ }));
  await expect(diaphragm).toBeHidden();
  await expect(page.getByText(/went in wrong/)).toBeHidden();
  await fitted(page, tray, 1); // its cover

  // The pump side, past the screen.
  await expect(form(page, 'inlet screen')).toBeVisible();
  const lines = page.getByRole('region', { name: 'Lines' });
  for (const part of ['pump diaphragm', 'pump gasket', 'pump cover']) {
    await lines.getByRole('button', { name: new RegExp(`^${part}`) }).click();
    await expect(form(page, part).getByText(/^Before it: /)).toBeVisible();
    await record(
      page,
      form(page, part)
        .getByRole('button', { name: part === 'pump cover' ? 'It is in' : /^It is in, from CK-419/ })
        .first(),
    );
    await expect(form(page, part)).toBeHidden();
  }
  await expect(page.getByText(/^Inlet screen is still on the bench, and pump cover closes over it/)).toBeVisible();

  // Not to be proven while anything lies there.
  await page.goto(`/tray/${tray}/prove`);
  await expect(page.getByText('Not to be proven yet.', { exact: true })).toBeVisible();
  await page.getByRole('link', { name: 'Go to build' }).click();
  await expect(
    page
      .getByRole('button', { name: 'Take out: pump cover' })
      .or(page.getByRole('button', { name: 'Take it out again: pump cover' }))
      .first(),
  ).toBeVisible();
  await expect(page.getByRole('region', { name: 'Left of the kit' }).getByText(/welch plug/)).toBeVisible();
});

test('a part off the shelf leaves it, and goes back when it comes out again', async ({ page }) => {
  const tray = await atStation(page, 'ilse', 'kit', fresh('Washer'));
  await note(page, tray, { kind: 'job', job: 'bowl' });
  for (const part of ['bowl-nut', 'bowl', 'bowl-gasket'])
    await note(page, tray, { kind: 'out', part, verdict: part === 'bowl-gasket' ? 'renew' : 'clean' });
  await page.goto(`/tray/${tray}/build`);
  const gasket = form(page, 'bowl gasket');
  const source = gasket.getByRole('button', { name: /^It is in, from / }).first();
  await expect(source).toBeVisible();
  const number = ((await source.getAttribute('aria-label')) ?? '').replace('It is in, from ', '');
  const onHand = async (): Promise<number> => (await get(page, `/api/stock/items/${number}`)).line.standing.onHand;
  const before = await onHand();
  await record(page, source);
  await expect(gasket).toBeHidden();
  expect(await onHand()).toBe(before - 1);
  await page
    .getByRole('region', { name: 'Lines' })
    .getByRole('button', { name: /^bowl gasket/ })
    .click();
  await record(page, page.getByRole('button', { name: 'Take it out again: bowl gasket' }));
  await expect(gasket).toBeVisible();
  expect(await onHand()).toBe(before);

  // Left off only with a reason that is signed for.
  await gasket.getByRole('button', { name: 'Leave it off, with a reason' }).click();
  await expect(gasket.getByText(/at least 10 characters/)).toBeVisible();
  await gasket.getByLabel('Reason or remark').fill('Sealed by the ring in the bowl itself');
  await gasket.getByRole('button', { name: 'Leave it off, with a reason' }).click();
  await expect(page.getByText(/Left off · .*Sealed by the ring/)).toBeVisible();
});
