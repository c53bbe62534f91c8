import { expect, type BrowserContext, type Locator, type Page } from '@playwright/test';

export const PASSWORD = 'sandrigg-quay';

/** Cookies of who has signed in before, by server and name: signing in is tried by tests of its own. */
const signedIn = new Map<string, Cookies>();

type Cookies = Awaited<ReturnType<BrowserContext['cookies']>>;

export async function signIn(page: Page, userName: string, path = '/'): Promise<void> {
  await signedInAs(page, userName);
  await page.goto(path);
  await expect(page.getByRole('button', { name: 'Sign out' }).first()).toBeVisible();
}

/** Somebody is signed in; no page is opened. */
async function signedInAs(page: Page, userName: string): Promise<void> {
  const context = page.context();
  const home = (await page.request.get('/health/live')).url();
  const key = `${new URL(home).origin} ${userName}`;
  const known = signedIn.get(key);
  if (known) await context.addCookies(known);
  // A test that signs out ends the session for whoever has its cookie.
  const session = (await (await page.request.get('/api/session')).json()) as { person: { userName: string } | null };
  if (session.person?.userName === userName) return;
  await send(page, '/api/session', { userName, password: PASSWORD });
  signedIn.set(key, await context.cookies());
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

/** A box of a gauge line, by what it asks for; its name says out of how many and in which unit as well. */
export const box = (page: Page, label: string, field: string): Locator =>
  line(page, label).getByRole('textbox', {
    name: new RegExp(`^${literally(label)}, ${literally(field)}( of \\d+)?(, \\S+)?$`),
  });

/** A text as it stands, for a pattern. */
const literally = (text: string): string => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');

/** The verdict a gauge line shows. */
export const verdict = (page: Page, label: string): Locator =>
  line(page, label).getByRole('button', { name: /Why and history$/ });

export const expectVerdict = (page: Page, label: string, word: string): Promise<void> =>
  expect(verdict(page, label)).toHaveAccessibleName(`${label}: ${word}. Why and history`);

/**
 * A tray with a carburetor that has just been checked in, open at a station; its number. Checking in by hand is tried by
 * tests of its own.
 */
export async function checkIn(page: Page, machine: string, stamped = '4107', at = 'kit'): Promise<number> {
  const { number } = await send<{ number: number }>(page, '/api/trays', {
    trayId: crypto.randomUUID(),
    entryId: crypto.randomUUID(),
    ownerName: 'Boat Petrel',
    machineName: machine,
    stampedNumber: stamped,
    family: stamped === '' ? 'floatBowl' : null,
    complaint: 'Hunts when warm',
    promisedDay: new Date(Date.now() + 5 * 86_400_000).toISOString().slice(0, 10),
  });
  await page.goto(`/tray/${number}/${at}`);
  return number;
}

/** Somebody signs in and stands at a station of a tray that has just been checked in. */
export async function atStation(
  page: Page,
  who: string,
  at: string,
  machine: string,
  stamped?: string,
): Promise<number> {
  await signedInAs(page, who);
  return checkIn(page, machine, stamped, at);
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
export async function send<T>(page: Page, path: string, body: unknown): Promise<T> {
  const { token } = (await (await page.request.get('/api/session')).json()) as { token: string };
  const answer = await page.request.post(path, { data: body, headers: { 'X-Blue-Dawn-Token': token } });
  const text = await answer.text();
  expect(answer.ok(), text).toBe(true);
  return (text === '' ? null : JSON.parse(text)) as T;
}

/** Entries of a tray's logbook. */
export const notes = (page: Page, tray: number, entries: { note: object; version?: number }[]): Promise<unknown> =>
  send(page, `/api/trays/${tray}/notes`, {
    entries: entries.map((entry) => ({ id: crypto.randomUUID(), takenAt: new Date().toISOString(), ...entry })),
  });

/** An entry of a tray's logbook. */
export const note = (page: Page, tray: number, entry: object): Promise<unknown> => notes(page, tray, [{ note: entry }]);

/** A number out of the interface, as it is now. */
export const get = async (page: Page, path: string) => (await page.request.get(path)).json();

/** Puts a kit on the shelf before a test takes one: other tests of the same server want to find theirs. */
export const stocked = async (page: Page, item: string): Promise<void> => {
  await send(page, '/api/stock/moves', { id: crypto.randomUUID(), item, kind: 'received', pieces: 1, note: '' });
};
