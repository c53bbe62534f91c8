import { expect, test } from './test';
import { PASSWORD, signIn } from './bench';

test('a wrong password is said plainly, and signing in leads to where one was going', async ({ page }) => {
  await page.goto('/tray/27/gauge');
  await page.getByLabel('Name').fill('ilse');
  await page.getByLabel('Password').fill('not-the-password');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('alert').getByText('Name and password do not go together.')).toBeVisible();
  await expect(page.getByLabel('Name')).toHaveValue('ilse');
  await page.getByLabel('Password').fill(PASSWORD);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('heading', { name: 'Gauge jets and emulsion tube' })).toBeVisible();
});

test('signing out closes the bench', async ({ page }) => {
  await signIn(page, 'marit');
  await page.getByRole('button', { name: 'Sign out' }).first().click();
  await expect(page.getByRole('button', { name: 'Sign in' })).toBeVisible();
  expect((await page.request.get('/api/bench')).status()).toBe(401);
});

test('pins that cannot be read are refused where they were typed', async ({ page }) => {
  await signIn(page, 'marit', '/my-bench');
  await page.getByLabel('My pins').fill('0.3-0.4');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText(/say the step, for example/)).toBeVisible();
  await expect(page.getByLabel('My pins')).toHaveValue('0.3-0.4');
});

test('? lists the keys', async ({ page }) => {
  await signIn(page, 'ilse');
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keyboard' })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toBeHidden();
});
