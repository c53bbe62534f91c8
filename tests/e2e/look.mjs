// Throw-away pictures while working: node look.mjs OUT URL_PATH [user] [width] [height] [script]
import { chromium } from '@playwright/test';
const [out, path, user = 'ilse', w = '1280', h = '800', scheme = 'light', full = ''] = process.argv.slice(2);
const base = process.env.BASE ?? 'http://127.0.0.1:5080';
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run', '--disable-background-networking', '--disable-component-update', '--disable-sync'] });
const page = await browser.newPage({ viewport: { width: +w, height: +h }, colorScheme: scheme });
page.on('console', (m) => { if (m.type() === 'error') console.log('console:', m.text()); });
page.on('pageerror', (e) => console.log('pageerror:', e.message));
await page.goto(base + '/');
if (user !== '-') {
  await page.getByLabel('Name').fill(user);
  await page.getByLabel('Password').fill('sandrigg-quay');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.getByRole('navigation', { name: 'Trays' }).first().waitFor({ state: 'attached' });
  await page.goto(base + path);
}
await page.waitForLoadState('networkidle');
await page.waitForTimeout(500);
if (process.env.DO) await (new Function('page', `return (async()=>{${process.env.DO}})()`))(page);
await page.waitForTimeout(300);
await page.screenshot({ path: out, fullPage: full === 'full' });
await browser.close();
