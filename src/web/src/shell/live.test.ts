import { QueryClient } from '@tanstack/react-query';
import { describe, expect, test } from 'vitest';
import { keys } from '../api/keys';
import { lookAt } from './live';

/** A client with a bench, a tray and the shelf, each counted when it is asked for. */
async function opened(bench: () => unknown) {
  const client = new QueryClient();
  const asked = { bench: 0, tray: 0, rules: 0 };
  const keep = (key: readonly unknown[], what: keyof typeof asked, answer: () => unknown) =>
    client.query({
      queryKey: key,
      queryFn: () => {
        asked[what]++;
        return Promise.resolve(answer());
      },
    });
  await keep(keys.bench, 'bench', bench);
  await keep(keys.tray(27), 'tray', () => ({ number: 27 }));
  await keep(keys.rules, 'rules', () => []);
  return { client, asked };
}

const isStale = (client: QueryClient, key: readonly unknown[]): boolean =>
  client.getQueryState(key)?.isInvalidated ?? false;

describe('what is heard', () => {
  test('the first beat after a page was opened asks the bench, and nothing else while that is as it was', async () => {
    const { client, asked } = await opened(() => ({ trays: [{ number: 27, revision: 3 }] }));
    await lookAt(client, new Set(['missed']));
    expect(asked.bench).toBe(2);
    expect(isStale(client, keys.tray(27))).toBe(false);
    expect(isStale(client, keys.rules)).toBe(false);
  });

  test('when the bench has changed in the silence everything is looked at again', async () => {
    let revision = 3;
    const { client } = await opened(() => ({ trays: [{ number: 27, revision: revision++ }] }));
    await lookAt(client, new Set(['missed']));
    expect(isStale(client, keys.tray(27))).toBe(true);
    expect(isStale(client, keys.rules)).toBe(true);
  });

  test('a change of one tray is looked at on that tray and the bench alone', async () => {
    const { client } = await opened(() => ({ trays: [] }));
    await lookAt(client, new Set(['tray 27']));
    expect(isStale(client, keys.tray(27))).toBe(true);
    expect(isStale(client, keys.bench)).toBe(true);
    expect(isStale(client, keys.rules)).toBe(false);
  });

  test('who has written it themselves looks at nothing again; who is behind looks at both', async () => {
    const seen = { number: 27, revision: 4, version: 2 };
    const { client } = await opened(() => ({ trays: [seen] }));
    client.setQueryData(keys.tray(27), seen);
    await lookAt(client, new Set(['tray 27 4 2']));
    expect(isStale(client, keys.tray(27))).toBe(false);
    expect(isStale(client, keys.bench)).toBe(false);
    await lookAt(client, new Set(['tray 27 4 3']));
    expect(isStale(client, keys.tray(27))).toBe(true);
    expect(isStale(client, keys.bench)).toBe(true);
  });
});
