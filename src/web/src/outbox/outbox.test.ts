import 'fake-indexeddb/auto';
import { IDBFactory } from 'fake-indexeddb';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { Pending } from './outbox';

const pending = (id: string, over: Partial<Pending> = {}): Pending => ({
  id,
  personId: 'ilse',
  tray: 27,
  takenAt: `2026-11-24T10:00:0${id}Z`,
  entry: {
    kind: 'reading',
    lineKey: 'gauging/main-jet',
    typed: { units: 'metric', values: { go: '0.72' }, rows: [] },
    supersedes: null,
  },
  ...over,
});

const answer = (status: number, body: unknown) => () =>
  Promise.resolve(new Response(JSON.stringify(body), { status, headers: { 'content-type': 'application/json' } }));

describe('readings on their way', () => {
  const fetched = vi.fn<typeof fetch>();
  let outbox: typeof import('./outbox').outbox;

  beforeEach(async () => {
    vi.resetModules();
    vi.stubGlobal('indexedDB', new IDBFactory()); // an empty device
    fetched.mockReset();
    vi.stubGlobal('fetch', fetched);
    outbox = (await import('./outbox')).outbox;
  });

  it('are gone from the device once the server has them', async () => {
    fetched.mockImplementation(answer(200, { number: 27 }));
    expect((await outbox.record(pending('1'))).state).toBe('recorded');
    expect(outbox.current()).toEqual([]);
  });

  it('stay on the device while the server is away, and go out in order when it is back', async () => {
    fetched.mockImplementation(() => Promise.reject(new TypeError('no network')));
    expect((await outbox.record(pending('2'))).state).toBe('kept');
    expect((await outbox.record(pending('1'))).state).toBe('kept');
    fetched.mockImplementation(answer(200, { number: 27 }));
    const done: string[] = [];
    await outbox.flush('ilse', (p) => done.push(p.id));
    expect(done).toEqual(['1', '2']);
    expect(outbox.current()).toEqual([]);
  });

  it('stay when the database is stopped or the session has ended', async () => {
    fetched.mockImplementation(answer(503, { title: 'The database does not answer.' }));
    expect((await outbox.record(pending('1'))).state).toBe('kept');
    fetched.mockImplementation(answer(401, { title: 'Sign in first.' }));
    expect((await outbox.record(pending('2'))).state).toBe('kept');
    expect(outbox.current()).toHaveLength(2);
  });

  it('are sent only by whoever took them', async () => {
    fetched.mockImplementation(() => Promise.reject(new TypeError('no network')));
    await outbox.record(pending('1', { personId: 'jory' }));
    fetched.mockImplementation(answer(200, { number: 27 }));
    await outbox.flush('ilse', () => expect.unreachable());
    expect(outbox.current()).toHaveLength(1);
  });

  it('of a trace go to the trace', async () => {
    fetched.mockImplementation(answer(200, { trace: {} }));
    const note = { kind: 'apart' as const, level: 'off' as const };
    expect(await outbox.record(pending('1', { entry: { kind: 'trace', note } }))).toMatchObject({
      state: 'traced',
      tray: 27,
    });
    const request = fetched.mock.calls[0]?.[0] as Request;
    expect(request.url).toMatch(/\/api\/trays\/27\/trace$/);
    expect(await request.json()).toMatchObject({ id: '1', note });
  });

  it('kept by an earlier version of the page go out as readings', async () => {
    const { openDB } = await import('idb');
    const old = await openDB('blue-dawn', 1, {
      upgrade: (db) => void db.createObjectStore('pending', { keyPath: 'id' }),
    });
    const { entry, ...rest } = pending('1');
    if (entry.kind !== 'reading') throw new Error('a reading was meant');
    await old.put('pending', { ...rest, lineKey: entry.lineKey, typed: entry.typed, supersedes: null });
    old.close();
    fetched.mockImplementation(answer(200, { number: 27 }));
    await outbox.flush('ilse', (p, sent) => expect([p.id, sent.state]).toEqual(['1', 'recorded']));
    expect(fetched).toHaveBeenCalledOnce();
    expect(outbox.current()).toEqual([]);
  });

  it('come back with the reason when they are refused', async () => {
    fetched.mockImplementation(answer(400, { title: 'No', errors: { go: ['Not a number'] } }));
    const sent = await outbox.record(pending('1'));
    expect(sent).toMatchObject({ state: 'refused', problem: { errors: { go: ['Not a number'] } } });
    expect(outbox.current()).toEqual([]);
  });
});
