import { expect, test, type Page } from './test';
import { checkIn, expectVerdict, fresh, get, line, note, send, signIn, stocked } from './bench';
import { Hands } from './hands';

/**
 * Six whole jobs by keyboard alone, the longest by touch as well. Keys are counted with every letter that is typed, so that a
 * job that takes more of them than it did is seen. The focus is looked at after every key; what is said aloud is heard.
 */
const MOST = { checkIn: 75, floatBowl: 165, diaphragm: 95, suctionTank: 55, order: 52, bowl: 62 };

for (const by of ['keys', 'touch'] as const) {
  test.describe(by === 'keys' ? 'by keyboard' : 'by touch', () => {
    if (by === 'touch') test.use({ viewport: { width: 820, height: 1180 }, hasTouch: true });
    test.describe.configure({ timeout: 180_000 });

    /** Hands at a page that has just been opened. */
    const at = async (page: Page, who: string, path: string): Promise<Hands> => {
      await signIn(page, who, path);
      const hands = new Hands(page, by);
      await hands.begin();
      await hands.settled();
      return hands;
    };
    /** No more keys than there were. */
    const within = (hands: Hands, job: keyof typeof MOST): void => {
      test.info().annotations.push({ type: 'presses', description: `${job}, ${by}: ${hands.presses}` });
      console.log(`${job}, ${by}: ${hands.presses}`);
      if (by === 'keys') expect(hands.presses, `${job}: presses`).toBeLessThanOrEqual(MOST[job]);
    };

    /** A job to which touch adds nothing: the longest has every kind of thing that is touched. */
    const byKeys = (title: string, job: (given: { page: Page }) => Promise<void>): void => {
      if (by === 'keys') test(title, ({ page }) => job({ page }));
    };

    byKeys('a new owner is checked in', async ({ page }) => {
      const hands = await at(page, 'jory', '/');
      await hands.key('n');
      await hands.type(page.getByRole('combobox', { name: 'Owner' }), 'Skiff Oystercatcher');
      await hands.type(page.getByLabel('How to reach them'), '0550 117');
      await hands.type(page.getByRole('combobox', { name: 'Machine' }), 'Bow winch');
      await hands.type(page.getByLabel('Stamped number'), '3088-A');
      await expect(page.getByText(/^3088-A is the Ostrel FB12: /)).toBeVisible();
      await hands.press(page.getByRole('button', { name: 'Will not start', exact: true }));
      await hands.press(page.getByRole('button', { name: 'Give it a tray' }));
      await expect(page).toHaveURL(/\/tray\/\d+\/trace$/);
      const tray = Number(page.url().split('/').at(-2));
      // Its number stands large, with its label and another one for the same owner.
      const card = page.getByRole('region', { name: 'Checked in' });
      await expect(card).toContainText(String(tray));
      await expect(page.getByRole('heading', { name: `Tray ${tray}, Bow winch`, level: 1 })).toBeFocused();
      // The heading says its number by itself; of the stamp it is said what it is, once the hand rests.
      expect(await hands.heard()).toEqual([expect.stringMatching(/^3088-A is the Ostrel FB12: /)]);
      within(hands, 'checkIn');
      await hands.press(card.getByRole('link', { name: 'Another for Skiff Oystercatcher' }));
      await expect(page.getByRole('combobox', { name: 'Owner' })).toHaveValue('Skiff Oystercatcher');
      await expect(page.getByRole('combobox', { name: 'Machine' })).toBeFocused();
    });

    test('a float-bowl carburetor from its kit to hand-back', async ({ page }) => {
      await signIn(page, 'jory');
      await stocked(page, 'OK-118');
      const tray = await checkIn(page, fresh('Bow winch'), '3088-A', 'kit');
      const hands = await at(page, 'jory', `/tray/${tray}/kit`);
      const onward = (name: RegExp) =>
        page.getByRole('complementary', { name: 'Bench card' }).getByRole('link', { name });
      const fill = (label: string, values: Record<string, string>) => fillLine(hands, label, values);

      const choose = page.getByRole('button', { name: 'Choose it: OK-118', exact: true });
      await choose.waitFor();
      // On the heading Enter goes to what is next.
      if (by === 'keys') await hands.key('Enter');
      await hands.press(choose);
      await expect(page.getByText('Chosen for this tray')).toBeVisible();
      await expect.poll(async () => (await hands.heard()).join(' ')).toContain('Chosen.');
      await hands.press(onward(/Go to strip/));
      await hands.press(page.getByRole('button', { name: 'Take this: Full strip' }));
      // Every part out by Enter; the two that are gone once out take a second.
      const left = async () => ((await get(page, `/api/trays/${tray}/ledger`)) as { toStrip: number }).toStrip;
      const parts = 14;
      await expect.poll(left).toBe(parts);
      for (let i = 0; i < parts; i++) {
        const before = await left();
        const out = page.getByRole('button', { name: /^It is out: / }).first();
        await hands.press(out);
        const notSeen = page.getByRole('button', { name: 'Not seen which way' }).first();
        const notCounted = page.getByRole('button', { name: 'Not counted' }).first();
        for (const asked of [notSeen, notCounted])
          if (await asked.isVisible()) {
            const alert = page.getByRole('alert').filter({ hasText: /gone once it is out/ });
            if (await alert.first().isVisible()) await hands.press(asked);
          }
        await expect.poll(left).toBeLessThan(before);
      }
      await hands.heard();

      await goTo(hands, 'Clean');
      await hands.press(page.getByRole('button', { name: 'Looks clean' }));
      const way = page.getByRole('listitem').filter({ hasText: 'advised' }).first();
      await hands.press(way.getByRole('button', { name: /^Choose it: / }));
      await hands.press(page.getByRole('button', { name: /^It is done: / }));
      const dry = page.getByRole('button', { name: 'Rinsed and dry' });
      const blow = page.getByRole('link', { name: /^Blow through the passages/ });
      await expect(dry.or(blow)).toBeVisible();
      if (await dry.isVisible()) await hands.press(dry);
      await hands.press(blow);
      // Each passage by one press, and the hand goes on to the next by itself.
      const airs = page.getByRole('button', { name: /^Air seen at the exit/, pressed: false });
      await expect(airs.first()).toBeVisible();
      for (let open = await airs.count(); open > 0; open--) {
        await hands.press(airs.first());
        await expect(airs).toHaveCount(open - 1);
      }
      await hands.heard();

      await goTo(hands, 'Gauge');
      await fill('Main jet', { goes: '0.572', stops: '0.588' });
      await expectVerdict(page, 'Main jet', 'In gauge');
      await fill('Idle jet', { goes: '0.29', stops: '0.31' });
      await fill('Row 1', { open: '4', goes: '0.49', stops: '0.51' });
      await fill('Row 2', { open: '4', goes: '0.59', stops: '0.61' });
      await expectVerdict(page, 'Row 2', 'In gauge');
      await hears(hands, ['Main jet: In gauge.', 'Idle jet: In gauge.', 'Row 1: In gauge.', 'Row 2: In gauge.']);

      await goTo(hands, 'Set');
      await fill('Float mass', { mass: '4.8' });
      await fill('Float height', { '0°': '12.0', '120°': '12.1', '240°': '12.0' });
      await expectVerdict(page, 'Float height', 'Level');
      await fill('Hold test', { '2 s': '48', '7 s': '48', '12 s': '48' });
      await expectVerdict(page, 'Hold test', 'Held');
      await hears(hands, ['Float mass: Dry.', 'Float height: Level.', 'Hold test: Held.']);

      await goTo(hands, 'Build');
      const toGo = async () => ((await get(page, `/api/trays/${tray}/ledger`)) as { open: number }).open;
      await expect.poll(toGo).toBe(parts);
      for (let i = 0; i < parts; i++) {
        const before = await toGo();
        const form = page.getByRole('group', { name: /^Fit: / });
        const way = form.getByRole('radio').first();
        // Which way round it goes in is chosen, never left.
        if (await way.isVisible()) await hands.choose(form.getByRole('radio', { name: await rightWay(page, tray) }));
        const isIn = form.getByRole('button', { name: /^It is in|^The new one is in/ }).first();
        // A gasket that no kit brings is cut from sheet.
        const none = form.getByText(/^None on the shelf that fits/);
        await expect(isIn.or(none)).toBeVisible();
        await hands.press((await none.isVisible()) ? form.getByRole('button', { name: 'Made one' }) : isIn);
        await expect.poll(toGo).toBeLessThan(before);
      }

      await goTo(hands, 'Prove');
      await hands.heard();
      await fill('Fuel on, rocked', { minutes: '4', Rocked: '', Dry: '' });
      await expectVerdict(page, 'Fuel on, rocked', 'Dry');
      await fill('“Hunts when warm”', { Gone: '' });
      await fill('Governed speed', { rpm: '3000' });
      // Once it is in the book the card leads on.
      await hears(hands, ['Fuel on, rocked: Dry.', '“Hunts when warm”: Gone.', 'Governed speed: In window.']);
      await goTo(hands, 'Hand back');
      await hands.press(page.getByRole('button', { name: 'Hand it back' }));
      await expect(page.getByText('Handed back.', { exact: true }).first()).toBeVisible();
      await hands.settled();
      within(hands, 'floatBowl');
    });

    byKeys('a diaphragm carburetor is set and proven in inches', async ({ page }) => {
      await signIn(page, 'marit');
      const tray = await checkIn(page, fresh('Auger'), 'D42-1060', 'set');
      const hands = await at(page, 'marit', `/tray/${tray}/set`);
      const looks = [
        ['Five parts of the metering side', 'All five'],
        ['Needle in the lever’s fork', 'In the fork'],
        ['Spring under the lever', 'Seated'],
        ['Lever pressed and let go', 'Comes back by itself'],
        ['Inlet, lever pressed', 'The drop goes in'],
        ['Main nozzle’s valve', 'One way only'],
      ] as const;
      for (const [label, answer] of looks)
        await hands.press(line(page, label).getByRole('radio', { name: answer, exact: true }));
      await fillLine(hands, 'Metering lever’s height', { depth: '.065' });
      await expectVerdict(page, 'Metering lever’s height', 'Right');
      for (const [label, answer] of [
        ['Metering diaphragm flexed', 'Supple and silent'],
        ['Centre against the old one', 'The same'],
        ['Flaps of the pump', 'Flat'],
        ['Plate of the metering diaphragm', 'As the old one'],
      ] as const)
        await hands.press(line(page, label).getByRole('radio', { name: answer, exact: true }));
      const pops = page.getByLabel(/^Pop-off, pop \d, (opened|shut) at/);
      for (const [i, psi] of ['16', '10.2', '16.1', '10.3', '15.9', '10.1'].entries()) {
        await hands.type(pops.nth(i), psi);
        await hands.key('Enter');
      }
      await expectVerdict(page, 'Pop-off', 'In window');
      await fillLine(hands, 'Hold test', { '2 s': '10', '7 s': '10', '12 s': '10' });
      await expectVerdict(page, 'Hold test', 'Held');
      await hears(hands, [
        'Five parts of the metering side: Complete.',
        'Needle in the lever’s fork: Hooked.',
        'Spring under the lever: Seated.',
        'Lever pressed and let go: Free.',
        'Inlet, lever pressed: Passes fuel.',
        'Main nozzle’s valve: One way.',
        'Metering lever’s height: Right.',
        'Metering diaphragm flexed: Supple.',
        'Centre against the old one: The same.',
        'Flaps of the pump: Flat.',
        'Plate of the metering diaphragm: Right way.',
        'Pop-off: In window.',
        'Hold test: Held.',
      ]);
      await note(page, tray, { kind: 'job', job: 'closed' });
      await goTo(hands, 'Prove');
      await fillLine(hands, 'Fuel on, rocked', { minutes: '4', Rocked: '', Dry: '' });
      await expectVerdict(page, 'Fuel on, rocked', 'Dry');
      await fillLine(hands, '“Hunts when warm”', { Gone: '' });
      await fillLine(hands, 'Idle speed', { rpm: '2800' });
      await hears(hands, ['Fuel on, rocked: Dry.', '“Hunts when warm”: Gone.', 'Idle speed: In window.']);
      within(hands, 'diaphragm');
    });

    byKeys('a carburetor on its tank with a vacuum choke', async ({ page }) => {
      await signIn(page, 'jory');
      const tray = await checkIn(page, fresh('Wash pump'), 'S3-140', 'set');
      const hands = await at(page, 'jory', `/tray/${tray}/set`);
      for (const [label, answer] of [
        ['Screens of the pickup pipes', 'Air passes each'],
        ['Holes of the tank gasket', 'All in line'],
        ['Tank top', 'Sound and flat'],
        ['Choke diaphragm’s chamber', 'Dry'],
        ['Springs of the choke diaphragm', 'Both right'],
      ] as const)
        await hands.press(line(page, label).getByRole('radio', { name: answer, exact: true }));
      await expectVerdict(page, 'Springs of the choke diaphragm', 'Both right');
      await note(page, tray, { kind: 'job', job: 'closed' });
      await goTo(hands, 'Choke');
      for (const [label, answer] of [
        ['Plate with the engine stopped', 'Shut'],
        ['Pushed open and let go, five times', 'Eases shut each time'],
        ['Air cleaner’s screw', 'In its hole'],
      ] as const)
        await hands.press(line(page, label).getByRole('radio', { name: answer, exact: true }));
      await expectVerdict(page, 'Air cleaner’s screw', 'In');
      await goTo(hands, 'Prove');
      await fillLine(hands, 'Fuel on, rocked', { minutes: '4', Rocked: '', Dry: '' });
      await fillLine(hands, '“Hunts when warm”', { Gone: '' });
      await fillLine(hands, 'Governed speed', { rpm: '3100' });
      await hears(hands, [
        'Screens of the pickup pipes: Pass air.',
        'Holes of the tank gasket: In line.',
        'Tank top: Sound.',
        'Choke diaphragm’s chamber: Dry.',
        'Springs of the choke diaphragm: Both right.',
        'Plate with the engine stopped: Shut.',
        'Pushed open and let go, five times: Eases shut.',
        'Air cleaner’s screw: In.',
        'Fuel on, rocked: Dry.',
        '“Hunts when warm”: Gone.',
        'Governed speed: In window.',
      ]);
      within(hands, 'suctionTank');
    });

    byKeys('a bowl is dropped on the machine, put back and handed over', async ({ page }) => {
      await signIn(page, 'marit');
      const tray = await checkIn(page, fresh('Bilge pump'), '3088-A', 'strip');
      const hands = await at(page, 'marit', `/tray/${tray}/strip`);
      const ledger = async () => (await get(page, `/api/trays/${tray}/ledger`)) as { toStrip: number; open: number };
      await hands.press(page.getByRole('button', { name: 'Take this: Bowl dropped on the machine' }));
      await expect.poll(async () => (await ledger()).toStrip).toBe(3);
      // Nut, bowl and gasket, all three as usual: two are cleaned, one goes back.
      await hands.press(page.getByRole('button', { name: /^All 3 out, as usual/ }));
      await expect.poll(async () => (await ledger()).open).toBe(3);

      await goTo(hands, 'Clean');
      await hands.press(page.getByRole('button', { name: 'Varnish' }));
      await hands.press(page.getByRole('button', { name: 'Choose it: Spray cleaner' }));
      await hands.press(page.getByRole('button', { name: /^It is done: / }));
      await hands.press(page.getByRole('button', { name: 'Rinsed and dry' }));

      await goTo(hands, 'Build');
      for (let left = 3; left > 0; left--) {
        const form = page.getByRole('group', { name: /^Fit: / });
        const way = form.getByRole('radio').first();
        await expect(form.getByRole('button', { name: /^It is in/ })).toBeVisible();
        if (await way.isVisible()) await hands.choose(form.getByRole('radio', { name: await rightWay(page, tray) }));
        await hands.press(form.getByRole('button', { name: /^It is in/ }));
        await expect.poll(async () => (await ledger()).open).toBe(left - 1);
      }

      await goTo(hands, 'Prove');
      await fillLine(hands, 'Fuel on, rocked', { minutes: '4', Rocked: '', Dry: '' });
      await fillLine(hands, '“Hunts when warm”', { Gone: '' });
      await fillLine(hands, 'Governed speed', { rpm: '2900' });
      await expectVerdict(page, 'Governed speed', 'In window');
      await goTo(hands, 'Hand back');
      await hands.press(page.getByRole('button', { name: 'Hand it back' }));
      await expect(page.getByText('Handed back.', { exact: true }).first()).toBeVisible();
      within(hands, 'bowl');
    });

    byKeys('what is needed is ordered, comes, and is taken', async ({ page }) => {
      await signIn(page, 'jory');
      const tray = await checkIn(page, fresh('Stall pump'), 'B2-770', 'kit');
      const version = async () => ((await get(page, `/api/trays/${tray}`)) as { version: number }).version;
      await send(page, `/api/trays/${tray}/notes`, {
        entries: [entry({ kind: 'sheet', specCode: 'BT2' }, await version())],
      });
      await send(page, `/api/trays/${tray}/notes`, {
        entries: [entry({ kind: 'fitting', option: 'singleParts', renew: ['tank gasket'] }, await version())],
      });
      const hands = await at(page, 'jory', '/stock/buying');
      const order = page
        .getByRole('region')
        .filter({ has: page.getByRole('link', { name: `tray ${tray}`, exact: true }) })
        .filter({ has: page.getByRole('button', { name: 'It is ordered' }) });
      await hands.press(order.getByRole('button', { name: 'It is ordered' }));
      const placed = page.getByRole('region', { name: /^Ordered from / }).first();
      await expect(placed).toBeVisible();
      await hands.settled();
      await hands.press(placed.getByRole('link', { name: 'All that is on order' }));
      const onOrder = page
        .getByRole('region', { name: /^Order from / })
        .filter({ has: page.getByRole('link', { name: String(tray), exact: true }) });
      await hands.press(onOrder.getByRole('button', { name: /^All of it came/ }));
      await expect(onOrder).toHaveCount(0);
      await hands.settled();
      await hears(hands, ['All of it from Northmole Supply is on the shelf.', 'Ordered from Northmole Supply.']);
      await page.goto(`/tray/${tray}/kit`);
      await expect(page.getByRole('link', { name: 'Kit here: take it' })).toBeVisible();
      await hands.press(page.getByRole('button', { name: 'Take it', exact: true }));
      await expect(page.getByText(/taken from the shelf/).first()).toBeVisible();
      within(hands, 'order');
    });
  });
}

const entry = (body: object, version: number) => ({
  id: crypto.randomUUID(),
  takenAt: new Date().toISOString(),
  note: body,
  version,
});

/**
 * What is said aloud, each thing once and nothing else. It is said when it is in the book: quick hands may have the next
 * there first, and are further than the line it names as next, which is only asked to be another one. A machine that is
 * so busy that an entry waits for a while says that, too, and rightly.
 */
async function hears(hands: Hands, expected: string[]): Promise<void> {
  if (hands.by === 'touch') return;
  const heard: string[] = [];
  await expect
    .poll(async () => {
      for (const text of await hands.heard()) {
        if (/ kept on this device$/.test(text)) continue;
        const [, said = text, next] = /^(.*?)(?: Next: (.+)\.)?$/.exec(text) ?? [];
        heard.push(next !== undefined && said.startsWith(`${next}:`) ? text : said);
      }
      return heard.toSorted();
    })
    .toEqual(expected.toSorted());
}

/** To another station: by the key for the next one, or by a touch on the strip. */
async function goTo(hands: Hands, name: string): Promise<void> {
  const { page } = hands;
  const link = page.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name: new RegExp(`^${name}`) });
  if (hands.by === 'touch') {
    await hands.press(link);
    return;
  }
  // By the address: what is drawn as the current one follows it.
  const isThere = (): Promise<boolean> =>
    link.evaluate((one) => window.location.pathname.startsWith((one as HTMLAnchorElement).pathname));
  // What is next stands in the hand when it is that station; else the keys before and after lead there.
  const card = page.getByRole('complementary', { name: 'Bench card' }).locator('[data-warm]');
  // While what was recorded last is on its way it may still lead to where the hand is: then the keys do.
  const leadsOn = (all: Element[]): boolean =>
    all.some(
      (one) =>
        one === document.activeElement &&
        !(one instanceof HTMLAnchorElement && one.pathname === window.location.pathname),
    );
  if (await card.evaluateAll(leadsOn)) {
    const from = page.url();
    await hands.key('Enter');
    await expect.poll(() => page.url()).not.toBe(from);
  }
  if (await isThere()) return;
  // A bracket belongs to a box or a group while one is in the hand: Esc leaves the line.
  if (await page.evaluate(() => document.activeElement?.closest('[data-line]') != null)) await hands.key('Escape');
  const stations = page.getByRole('navigation', { name: 'Stations' }).getByRole('link');
  const places = () =>
    stations.evaluateAll(
      (links, to) => [
        links.findIndex((one) => window.location.pathname.startsWith((one as HTMLAnchorElement).pathname)),
        links.findIndex((one) => one.textContent?.startsWith(to)),
      ],
      name,
    );
  for (let i = 0; i < 11; i++) {
    const [here = 0, wanted = 0] = await places();
    if (here === wanted) break;
    await hands.key(here < wanted ? ']' : '[');
    await expect.poll(async () => (await places())[0]).not.toBe(here);
  }
  await hands.key('Enter');
}

/** Fills a gauge line: boxes by what stands in their name, words by themselves, Enter after each. */
async function fillLine(hands: Hands, label: string, values: Record<string, string>): Promise<void> {
  const one = line(hands.page, label);
  for (const [what, text] of Object.entries(values)) {
    if (text === '') {
      const word = one.getByRole('radio', { name: what, exact: true });
      if (hands.by === 'touch') await hands.press(word);
      else {
        await hands.to(word);
        for (let i = 0; i < 6 && !(await word.evaluate((element) => element === document.activeElement)); i++)
          await hands.key('ArrowRight');
        await hands.key('Enter');
      }
      continue;
    }
    const box = one.getByRole('textbox', { name: new RegExp(`^${label}(, | at )${what}( of \\d+)?(, \\S+)?$`) });
    await hands.type(box, text);
    if (hands.by === 'keys') await hands.key('Enter');
  }
  if (hands.by === 'touch') {
    const record = one.getByRole('button', { name: `Record ${label}` });
    await hands.press(record);
  }
}

/** Which way round the part that is next has to go in. */
async function rightWay(page: Page, tray: number): Promise<string> {
  const ledger = (await get(page, `/api/trays/${tray}/ledger`)) as {
    advice: { part: string; rightWay: { label: string } | null }[];
    lines: { part: { key: string; label: string; ways: { label: string }[] } }[];
  };
  const name = (await page.getByRole('group', { name: /^Fit: / }).getAttribute('aria-label'))?.slice(5);
  const one = ledger.lines.find(({ part }) => part.label === name);
  return ledger.advice.find(({ part }) => part === one?.part.key)?.rightWay?.label ?? one?.part.ways[0]?.label ?? '';
}
