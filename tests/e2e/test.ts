import { test as base } from '@playwright/test';
import { freePort, OwnServer } from './machine';

export { expect, type Locator, type Page } from '@playwright/test';

/** One database for each worker, filled alike beforehand; ./test makes them. */
const databases = (process.env.BLUE_DAWN_DATABASES ?? process.env.BLUE_DAWN_DATABASE ?? '').split('|');

/** Two without anything in them: a shop begins in one and moves to the other. */
export const emptyDatabases = (process.env.BLUE_DAWN_EMPTY_DATABASES ?? '').split('|');

/** What an empty shop is set up with. */
export const SETUP_CODE = 'K7QM-3XHT-9WPD';

/** A test against a server of its worker's own, so that workers never wait for or see each other. */
export const test = base.extend<object, { shop: 'demo' | 'empty'; server: OwnServer }>({
  shop: ['demo', { scope: 'worker', option: true }],
  server: [
    async ({ shop }, use, info) => {
      const server =
        shop === 'empty'
          ? new OwnServer(await freePort(), emptyDatabases[0] ?? '', SETUP_CODE)
          : new OwnServer(await freePort(), databases[info.parallelIndex % databases.length] ?? '');
      await server.start();
      await use(server);
      await server.stop();
    },
    { scope: 'worker', auto: true, timeout: 90_000 },
  ],
  baseURL: async ({ server }, use) => use(server.url),
});
