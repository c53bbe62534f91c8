import { test as base } from '@playwright/test';
import { freePort, OwnServer } from './machine';

export { expect, type Locator, type Page } from '@playwright/test';

/** One database for each worker, filled alike beforehand; ./test makes them. */
const databases = (process.env.BLUE_DAWN_DATABASES ?? process.env.BLUE_DAWN_DATABASE ?? '').split('|');

/** A test against a server of its worker's own, so that workers never wait for or see each other. */
export const test = base.extend<object, { server: OwnServer }>({
  server: [
    async ({}, use, info) => {
      const database = databases[info.parallelIndex % databases.length] ?? '';
      const server = new OwnServer(await freePort(), database);
      await server.start();
      await use(server);
      await server.stop();
    },
    { scope: 'worker', auto: true, timeout: 90_000 },
  ],
  baseURL: async ({ server }, use) => use(server.url),
});
