import AxeBuilder from '@axe-core/playwright';
import { expect, test, type Page } from './test';
import { signIn } from './bench';

const pages = [
  '/',
  '/check-in',
  '/my-bench',
  '/tray/27/check-in',
  '/tray/27/trace',
  '/tray/31/trace',
  '/tray/27/kit/identify',
  '/tray/35/kit',
  '/tray/34/kit/match',
  '/tray/30/kit/decide',
  '/stock',
  '/stock/donors',
  '/stock/buying',
  '/stock/catalogue',
  '/tray/32/strip',
  '/tray/39/strip',
  '/tray/38/clean',
  '/tray/24/clean/bath',
  '/tray/38/clean/passages',
  '/tray/39/clean/holes',
  '/tray/38/build',
  '/baths',
  '/tray/27/gauge',
  '/tray/26/set',
  '/tray/25/prove',
  '/tray/27/hand-back',
  '/tray/18/hand-back',
  '/tray/18/report',
  '/tray/33/gauge',
  '/tray/33/choke',
  '/tray/18/label',
  '/stock/orders',
  '/people',
  '/rules',
  '/knowledge',
  '/knowledge/faults/causes',
  '/owners',
  '/sheets',
  '/sheets/BT2',
  '/sheets/new',
] as const;

// Each page is loaded once and looked at in every way, in four tests so that the workers share them.
const SHARES = 4;

/**
 * What axe finds serious. Only the colours differ in the dark: everything else is looked at once. What stands around
 * the page is the same on every page: its colours in the dark are looked at where `around` says so.
 */
async function serious(page: Page, where: string, around: boolean): Promise<string[]> {
  const found: string[] = [];
  const look = async (what: string, axe: AxeBuilder): Promise<void> => {
    const { violations } = await axe.analyze();
    for (const violation of violations.filter((v) => v.impact === 'serious' || v.impact === 'critical'))
      found.push(...violation.nodes.map(({ html }) => `${where}, ${what}: ${violation.id}: ${html}`));
  };
  // No page has frames: without looking for them each look takes half a second less.
  const axe = (): AxeBuilder => new AxeBuilder({ page }).options({ resultTypes: ['violations'] }).setLegacyMode();
  await page.emulateMedia({ colorScheme: 'light', reducedMotion: 'reduce' });
  await look('light', axe());
  await page.emulateMedia({ colorScheme: 'dark', reducedMotion: 'reduce' });
  const colours = axe().withRules(['color-contrast']);
  await look('dark', around ? colours : colours.include('#main'));
  return found;
}

/** What is pressed and read aloud by another name than the one that stands there: a voice does not find it. */
async function misnamed(page: Page, where: string): Promise<string[]> {
  const found = await page.evaluate(() => {
    const plain = (text: string): string =>
      text
        .toLowerCase()
        .replace(/[^\p{L}\p{N}]+/gu, ' ')
        .trim();
    const pressed = document.querySelectorAll<HTMLElement>(
      'button[aria-label], a[aria-label], summary[aria-label], [role="button"][aria-label], [role="radio"][aria-label]',
    );
    return [...pressed].flatMap((one) => {
      const name = one.getAttribute('aria-label') ?? '';
      // Its first line is what it is called; the rest says more about it.
      const text = one instanceof HTMLElement ? one.innerText : (one as Element).querySelector('text')?.textContent;
      const shown = plain((text ?? '').trim().split('\n')[0] ?? '');
      return shown !== '' && !plain(name).includes(shown) ? [`“${shown}” is called “${name}”`] : [];
    });
  });
  return [...new Set(found)].map((what) => `${where}: ${what}`);
}

/** Widths at which something stands out to the side. */
async function sideways(page: Page, where: string): Promise<string[]> {
  const found: string[] = [];
  for (const [width, height] of [
    [390, 844],
    [820, 1180],
    [1280, 800],
  ] as const) {
    await page.setViewportSize({ width, height });
    const over = await page.evaluate(
      () =>
        new Promise<number>((done) =>
          requestAnimationFrame(() => done(document.documentElement.scrollWidth - window.innerWidth)),
        ),
    );
    if (over > 0) found.push(`${where} at ${width}: ${over} px too wide`);
  }
  return found;
}

for (let share = 0; share < SHARES; share++) {
  test(`nothing serious on any page, light and dark, and none scrolls sideways, ${share + 1} of ${SHARES}`, async ({
    page,
  }) => {
    test.setTimeout(240_000);
    const found: string[] = [];
    if (share === 0) {
      await page.goto('/');
      await page.getByRole('button', { name: 'Sign in' }).waitFor();
      found.push(...(await serious(page, 'sign-in', true)), ...(await sideways(page, 'sign-in')));
    }
    await signIn(page, 'ilse');
    for (const path of pages.filter((_, i) => i % SHARES === share)) {
      await page.goto(path);
      await page.getByRole('heading').first().waitFor();
      await page.waitForLoadState('networkidle');
      found.push(
        ...(await serious(page, path, path === '/' || path === '/tray/27/gauge')),
        ...(await misnamed(page, path)),
        ...(await sideways(page, path)),
      );
    }
    if (share === 0) {
      await page.keyboard.press('?');
      await page.getByRole('dialog').waitFor();
      found.push(...(await serious(page, 'keyboard help', true)));
    }
    expect(found).toEqual([]);
  });
}
