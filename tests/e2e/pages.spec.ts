import AxeBuilder from '@axe-core/playwright';
import { expect, test } from '@playwright/test';
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
] as const;

for (const scheme of ['light', 'dark'] as const) {
  test(`axe finds nothing serious on any page, ${scheme}`, async ({ page }) => {
    test.setTimeout(240_000);
    await page.emulateMedia({ colorScheme: scheme, reducedMotion: 'reduce' });
    const look = async (where: string) => {
      // Only the colours differ between the two: everything else is looked at once.
      const axe = new AxeBuilder({ page });
      const { violations } = await (scheme === 'dark' ? axe.withRules(['color-contrast']) : axe).analyze();
      const serious = violations.filter((v) => v.impact === 'serious' || v.impact === 'critical');
      expect(serious.map((v) => `${where}: ${v.id}: ${v.nodes[0]?.html}`)).toEqual([]);
    };
    await page.goto('/');
    await page.getByRole('button', { name: 'Sign in' }).waitFor();
    await look('sign-in');
    await signIn(page, 'ilse');
    for (const path of pages) {
      await page.goto(path);
      await page.getByRole('heading').first().waitFor();
      await page.waitForLoadState('networkidle');
      await look(path);
    }
    await page.keyboard.press('?');
    await page.getByRole('dialog').waitFor();
    await look('keyboard help');
  });
}

for (const [width, height] of [
  [1280, 800],
  [820, 1180],
  [390, 844],
] as const) {
  test(`no page scrolls sideways at ${width}x${height}`, async ({ page }) => {
    await page.setViewportSize({ width, height });
    await signIn(page, 'ilse');
    for (const path of pages) {
      await page.goto(path);
      await page.getByRole('heading').first().waitFor();
      await page.waitForLoadState('networkidle');
      const over = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
      expect(over, path).toBeLessThanOrEqual(0);
    }
  });
}
