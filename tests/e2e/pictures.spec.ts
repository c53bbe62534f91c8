import { resolve } from 'node:path';
import { test } from './test';
import { signIn } from './bench';

/** The pictures in docs/screenshots, from the demo data as it is loaded. */
const views: readonly [name: string, path: string][] = [
  ['bench', '/'],
  ['check-in', '/check-in'],
  ['tray-trace', '/tray/31/trace'],
  ['tray-kit-identify', '/tray/34/kit/identify'],
  ['tray-kit-decide', '/tray/30/kit/decide'],
  ['tray-strip', '/tray/39/strip'],
  ['tray-clean', '/tray/24/clean/bath'],
  ['tray-build', '/tray/38/build'],
  ['tray-gauge', '/tray/27/gauge'],
  ['tray-set', '/tray/25/set'],
  ['tray-choke', '/tray/36/choke'],
  ['tray-prove', '/tray/25/prove'],
  ['tray-hand-back', '/tray/27/hand-back'],
  ['report', '/tray/18/report'],
  ['stock-shelf', '/stock/shelf'],
  ['stock-buying', '/stock/buying'],
  ['sheet', '/sheets/FB18'],
  ['rules', '/rules'],
  ['knowledge', '/knowledge'],
];

const folder = resolve(import.meta.dirname, '../../docs/screenshots');

test('pictures of every main view', async ({ page }) => {
  await signIn(page, 'ilse');
  for (const [name, path] of views) {
    await page.goto(path);
    await page.getByRole('heading').first().waitFor();
    await page.waitForLoadState('networkidle');
    await page.evaluate(() => document.fonts.ready);
    await page.screenshot({ path: `${folder}/${name}.png` });
  }
});
