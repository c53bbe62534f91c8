import { expect, type BrowserContext, type Locator, type Page } from '@playwright/test';

export const PASSWORD = 'sandrigg-quay';

/** Cookies of who has signed in before, by server and name: signing in is tried by tests of its own. */
const signedIn = new Map<string, Cookies>();

type Cookies = Awaited<ReturnType<BrowserContext['cookies']>>;

export async function signIn(page: Page, userName: string, path = '/'): Promise<void> {
  const context = page.context();
  const home = (await page.request.get('/health/live')).url();
  const key = `${new URL(home).origin} ${userName}`;
  const known = signedIn.get(key);
  if (known) await context.addCookies(known);
  // A test that signs out ends the session for whoever has its cookie.
  const session = (await (await page.request.get('/api/session')).json()) as { person: { userName: string } | null };
  if (session.person?.userName !== userName) {
    await send(page, '/api/session', { userName, password: PASSWORD });
    signedIn.set(key, await context.cookies());
  }
  await page.goto(path);
  await expect(page.getByRole('button', { name: 'Sign out' }).first()).toBeVisible();
}

/** Signs in without a pointer. */
export async function signInByKeyboard(page: Page, userName: string): Promise<void> {
  await page.goto('/');
  await expect(page.getByLabel('Name')).toBeFocused();
  await page.keyboard.type(userName);
  await page.keyboard.press('Tab');
  await page.keyboard.type(PASSWORD);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: /at the bench$/ })).toBeVisible();
}

/** The gauge line of that name on the station that is open. */
export const line = (page: Page, label: string): Locator => page.getByRole('article', { name: label, exact: true });

/** A box of a gauge line, by the words its label ends in. */
export const box = (page: Page, label: string, field: string): Locator =>
  line(page, label).getByRole('textbox', { name: `${label}, ${field}`, exact: true });

/** The verdict a gauge line shows. */
export const verdict = (page: Page, label: string): Locator =>
  line(page, label).getByRole('button', { name: /Why and history$/ });

export const expectVerdict = (page: Page, label: string, word: string): Promise<void> =>
  expect(verdict(page, label)).toHaveAccessibleName(`${label}: ${word}. Why and history`);

/** Checks in a float-bowl carburetor and gives its tray number; the page is at Kit. */
export async function checkIn(page: Page, machine: string, stamped = '4107'): Promise<number> {
  await page.goto('/check-in');
  await page.getByRole('combobox', { name: 'Owner' }).fill('Boat Petrel');
  await page.getByRole('combobox', { name: 'Machine' }).fill(machine);
  await page.getByLabel('Stamped number').fill(stamped);
  if (stamped === '') await page.getByRole('radio', { name: 'Float bowl' }).click();
  await page.getByLabel('What the owner says').fill('Hunts when warm');
  await page.getByRole('button', { name: 'Give it a tray' }).click();
  await expect(page).toHaveURL(/\/tray\/\d+\/kit$/);
  // The address is the tray's before its page has come: until then the check-in form stands there.
  await expect(page.getByRole('button', { name: 'Give it a tray' })).toBeHidden();
  return Number(page.url().split('/').at(-2));
}

/** Presses Tab until the wanted thing has the focus, as someone without a pointer would. */
export async function tabTo(page: Page, wanted: Locator, most = 200): Promise<void> {
  await wanted.waitFor({ timeout: 15_000 });
  for (let i = 0; i < most; i++) {
    if (await wanted.evaluate((element) => element === document.activeElement)) return;
    await page.keyboard.press('Tab');
  }
  throw new Error(`Tab does not reach ${String(wanted)}.`);
}

/** A fresh name, so that no test meets another's tray. */
export const fresh = (name: string): string => `${name} ${Math.random().toString(36).slice(2, 8)}`;

/** Sends something as the page would, for what a test needs and is not about. */
export async function send(page: Page, path: string, body: unknown): Promise<void> {
  const { token } = (await (await page.request.get('/api/session')).json()) as { token: string };
  const answer = await page.request.post(path, { data: body, headers: { 'X-Blue-Dawn-Token': token } });
  expect(answer.ok(), await answer.text()).toBe(true);
}

/** Entries of a tray's logbook. */
export const notes = (page: Page, tray: number, entries: { note: object; version?: number }[]): Promise<void> =>
  send(page, `/api/trays/${tray}/notes`, {
    entries: entries.map((entry) => ({ id: crypto.randomUUID(), takenAt: new Date().toISOString(), ...entry })),
  });

/** An entry of a tray's logbook. */
export const note = (page: Page, tray: number, entry: object): Promise<void> => notes(page, tray, [{ note: entry }]);

/** A number out of the interface, as it is now. */
export const get = async (page: Page, path: string) => (await page.request.get(path)).json();
