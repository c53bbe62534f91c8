import 'fake-indexeddb/auto';
import { IDBFactory } from 'fake-indexeddb';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { Pending } from './outbox';

const pending = (id: string, over: Partial<Pending> = {}): Pending => ({
  id,
  personId: 'ilse',
  tray: 27,
  takenAt: `2026-11-24T10:00:0${id}Z`,
  note: {
    kind: 'reading',
    line: 'gauging/main-jet',
    typed: { units: 'metric', values: { go: '0.72' }, rows: [] },
    sure: true,
  },
  supersedes: null,
  ...over,
});

const answer = (status: number, body: unknown) => () =>
  Promise.resolve(new Response(JSON.stringify(body), { status, headers: { 'content-type': 'application/json' } }));

/** What the server answers when it takes everything it is sent. */
const takesAll = async (request: Request | URL | string): Promise<Response> => {
  const { entries } = (await (request as Request).json()) as { entries: { id: string }[] };
  const body = { outcomes: entries.map(({ id }) => ({ id, outcome: 'recorded' })), tray: { number: 27 } };
  return new Response(JSON.stringify(body), { status: 200, headers: { 'content-type': 'application/json' } });
};

const nothing = (): Promise<undefined> => Promise.resolve(undefined);
const back = { kind: 'back', part: 'bowl', fate: 'refitted' } as Pending['note'];
const noWay = { status: 400, title: 'Not so', detail: '', errors: { 'note.way': ['Say which way round.'] } };

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
    fetched.mockImplementation(takesAll);
    expect((await outbox.record([pending('1')])).state).toBe('recorded');
    expect(outbox.current()).toEqual([]);
  });

  it('are on the device until the page shows what the server answered', async () => {
    fetched.mockImplementation(takesAll);
    const seen: [number, number][] = [];
    outbox.takeWith((tray) => {
      seen.push([tray, outbox.current().length]);
      return Promise.resolve();
    }, nothing);
    await outbox.record([pending('1'), pending('2')]);
    expect(seen).toEqual([[27, 2]]);
    expect(outbox.current()).toEqual([]);
  });

  it('stay on the device while the server is away, and go out in order when it is back', async () => {
    fetched.mockImplementation(() => Promise.reject(new TypeError('no network')));
    expect((await outbox.record([pending('2')])).state).toBe('kept');
    expect((await outbox.record([pending('1')])).state).toBe('kept');
    fetched.mockReset();
    fetched.mockImplementation(takesAll);
    await outbox.flush('ilse', (tray, sent) => expect([tray, sent.state]).toEqual([27, 'recorded']));
    expect(fetched).toHaveBeenCalledOnce(); // both of one tray in one request
    expect(outbox.current()).toEqual([]);
  });

  it('stay when the database is stopped or the session has ended', async () => {
    fetched.mockImplementation(answer(503, { title: 'The database does not answer.' }));
    expect((await outbox.record([pending('1')])).state).toBe('kept');
    fetched.mockImplementation(answer(401, { title: 'Sign in first.' }));
    expect((await outbox.record([pending('2')])).state).toBe('kept');
    expect(outbox.current()).toHaveLength(2);
  });

  it.each([
    ['the server is in trouble', 500, { title: 'Something went wrong.' }],
    ['the disk is full', 507, { title: 'No room.' }],
    ['the server asks for patience', 429, { title: 'Too much at once.' }],
    ['it took too long', 408, { title: 'Too slow.' }],
    ['something in between answers', 403, 'Blocked by the harbour’s gateway'],
    ['the answer is broken', 200, {}],
  ])('stay when %s', async (_why, status, body) => {
    fetched.mockImplementation(answer(status, body));
    expect((await outbox.record([pending('1')])).state).toBe('kept');
    expect(outbox.current()).toHaveLength(1);
    fetched.mockImplementation(takesAll);
    await outbox.flush('ilse', () => undefined);
    expect(outbox.current()).toEqual([]);
  });

  it('are sent only by whoever took them', async () => {
    fetched.mockImplementation(() => Promise.reject(new TypeError('no network')));
    await outbox.record([pending('1', { personId: 'jory' })]);
    fetched.mockImplementation(takesAll);
    await outbox.flush('ilse', () => expect.unreachable());
    expect(outbox.current()).toHaveLength(1);
  });

  it('of one tray go out together, and another tray’s after them', async () => {
    fetched.mockImplementation(() => Promise.reject(new TypeError('no network')));
    await outbox.keep(pending('1'), pending('2'), pending('3', { tray: 31 }));
    const sent: unknown[] = [];
    fetched.mockImplementation(async (request) => {
      const asked = (request as Request).clone();
      sent.push([
        new URL(asked.url).pathname,
        ((await asked.json()) as { entries: { id: string }[] }).entries.map((e) => e.id),
      ]);
      return takesAll(request);
    });
    await outbox.flush('ilse', () => undefined);
    expect(sent).toEqual([
      ['/api/trays/27/notes', ['1', '2']],
      ['/api/trays/31/notes', ['3']],
    ]);
  });

  it('that are refused leave the device, and those sent with them are in the book', async () => {
    fetched.mockImplementation(
      answer(200, {
        outcomes: [
          { id: '1', outcome: 'recorded' },
          { id: '2', outcome: 'refused', problem: { status: 400, title: 'No', detail: 'Not so', errors: {} } },
        ],
        tray: { number: 27 },
      }),
    );
    const sent = await outbox.record([pending('1'), pending('2')]);
    expect(sent).toMatchObject({ state: 'refused', patch: { number: 27 }, problem: { title: 'No' } });
    expect(outbox.current()).toEqual([]);
  });

  it('that are refused later go back into the boxes they were typed in, and never over something new', async () => {
    fetched.mockImplementation(
      answer(400, { title: 'Far from the sheet', detail: '7.2 mm?', errors: { go: ['7.2 mm?'] }, status: 400 }),
    );
    await outbox.keep(pending('1'));
    await outbox.flush('ilse', () => undefined);
    expect(outbox.current()).toEqual([]);
    const kept = 'draft:ilse:27:gauging/main-jet';
    expect(JSON.parse(localStorage.getItem(kept) ?? '')).toMatchObject({ values: { go: '0.72' }, correcting: null });
    localStorage.setItem(kept, JSON.stringify({ values: { go: '0.9' } }));
    await outbox.record([pending('2')]);
    expect(localStorage.getItem(kept)).toContain('0.9');
  });

  it('kept by earlier versions of the page go out as notes', async () => {
    const { openDB } = await import('idb');
    const old = await openDB('blue-dawn', 1, {
      upgrade: (db) => void db.createObjectStore('pending', { keyPath: 'id' }),
    });
    const { note, supersedes, ...rest } = pending('1');
    if (note.kind !== 'reading') throw new Error('a reading was meant');
    await old.put('pending', { ...rest, lineKey: note.line, typed: note.typed, supersedes });
    const ledger = { kind: 'ledger', note: { kind: 'job', job: 'full' } };
    await old.put('pending', { ...rest, id: '2', takenAt: '2026-11-24T10:00:02Z', entry: ledger });
    const corrected = { kind: 'reading', lineKey: note.line, typed: note.typed, supersedes: '1' };
    await old.put('pending', { ...rest, id: '3', takenAt: '2026-11-24T10:00:03Z', entry: corrected });
    old.close();
    let sent: unknown;
    fetched.mockImplementation(async (request) => {
      sent = await (request as Request).clone().json();
      return takesAll(request);
    });
    await outbox.flush('ilse', () => undefined);
    expect(sent).toMatchObject({
      entries: [
        { id: '1', note, supersedes: null },
        { id: '2', note: { kind: 'job', job: 'full' } },
        { id: '3', note, supersedes: '1' },
      ],
    });
    expect(outbox.current()).toEqual([]);
  });

  it('come back with the reason when they are refused', async () => {
    fetched.mockImplementation(answer(400, { title: 'No', errors: { go: ['Not a number'] } }));
    const sent = await outbox.record([pending('1')]);
    expect(sent).toMatchObject({ state: 'refused', problem: { errors: { go: ['Not a number'] } } });
    expect(outbox.current()).toEqual([]);
  });

  it('that are refused and find their boxes taken stay in sight until a person settles them', async () => {
    localStorage.setItem('draft:ilse:27:gauging/main-jet', JSON.stringify({ values: { go: '0.9' } }));
    fetched.mockImplementation(answer(400, { title: 'No', detail: 'Not so', errors: { go: ['Not a number'] } }));
    await outbox.record([pending('1')]);
    expect(outbox.current()).toEqual([]);
    expect(outbox.notTaken()).toMatchObject([
      {
        id: '1',
        note: { typed: { values: { go: '0.72' } } },
        problem: { title: 'No', errors: { go: ['Not a number'] } },
      },
    ]);
    // Another visit of the same device finds them again.
    vi.resetModules();
    const again = (await import('./outbox')).outbox;
    await again.flush('nobody', () => undefined);
    expect(again.notTaken()).toHaveLength(1);
    await again.settle('1');
    expect(again.notTaken()).toEqual([]);
  });

  it('of anything but a reading are never thrown away when they are refused', async () => {
    fetched.mockImplementation(answer(409, { title: 'It has been handed back.', errors: {} }));
    await outbox.record([pending('1', { note: { kind: 'job', job: 'full' } as Pending['note'] })]);
    expect(outbox.notTaken()).toMatchObject([
      { note: { kind: 'job' }, problem: { title: 'It has been handed back.' } },
    ]);
  });

  it('that were handed over by a page that is gone before the store has answered are there in the next', async () => {
    localStorage.setItem('handed:1', JSON.stringify(pending('1')));
    fetched.mockImplementation(takesAll);
    await outbox.flush('ilse', () => undefined);
    expect(fetched).toHaveBeenCalledTimes(1);
    expect(localStorage.getItem('handed:1')).toBeNull();
    expect(outbox.current()).toEqual([]);
    await outbox.keep(pending('2'));
    expect(localStorage.getItem('handed:2')).toBeNull();
  });

  it('of a form that is still there come back to its fields; without it they wait to be settled', async () => {
    const refused = { outcomes: [{ id: '1', outcome: 'refused', problem: noWay }], tray: { number: 27 } };
    fetched.mockImplementation(answer(200, refused));
    const sent = await outbox.record([pending('1', { note: back })], () => true);
    expect(sent).toMatchObject({ state: 'refused', problem: { errors: noWay.errors } });
    expect(outbox.notTaken()).toEqual([]);
    await outbox.record([pending('1', { note: back })], () => false);
    expect(outbox.notTaken()).toHaveLength(1);
  });

  it('that the rules on this device refuse are said at once without the server, and the others wait', async () => {
    fetched.mockImplementation(() => Promise.reject(new TypeError('no network')));
    outbox.takeWith(
      () => Promise.resolve(),
      // The page has looked long before the rules have been asked: what they say is waited for.
      ({ id }) => new Promise((say) => setTimeout(() => say(id === '2' ? noWay : undefined), 50)),
    );
    const sent = await outbox.record([pending('1'), pending('2', { note: back })], () => true);
    expect(sent).toMatchObject({ state: 'refused', problem: { errors: noWay.errors } });
    expect(outbox.current().map(({ id }) => id)).toEqual(['1']);
    expect(outbox.notTaken()).toEqual([]);
    // An entry that waited when its form had gone is for the server to say.
    await outbox.record([pending('2', { note: back })], () => false);
    expect(outbox.current().map(({ id }) => id)).toEqual(['1', '2']);
  });

  it('that somebody else took are left alone, and the session is looked at', async () => {
    const ended = vi.fn();
    window.addEventListener('blue-dawn:signed-out', ended);
    fetched.mockImplementation(
      answer(200, { outcomes: [{ id: '1', outcome: 'others', problem: null }], tray: { number: 27 } }),
    );
    expect((await outbox.record([pending('1')])).state).toBe('kept');
    expect(outbox.current()).toHaveLength(1);
    expect(outbox.notTaken()).toEqual([]);
    expect(ended).toHaveBeenCalled();
    window.removeEventListener('blue-dawn:signed-out', ended);
  });

  it('say who took them and what the clock of the device shows', async () => {
    let sent: unknown;
    fetched.mockImplementation(async (request) => {
      sent = await (request as Request).clone().json();
      return takesAll(request);
    });
    await outbox.record([pending('1')]);
    expect(sent).toMatchObject({
      entries: [{ id: '1', takenBy: 'ilse' }],
      sentAt: expect.stringMatching(/^20/) as string,
    });
  });

  it('do not wait for one that the server stumbles over', async () => {
    fetched.mockImplementation(() => Promise.reject(new TypeError('no network')));
    await outbox.keep(pending('1'), pending('2'), pending('3', { tray: 31 }));
    fetched.mockImplementation(async (request) => {
      const { entries } = (await (request as Request).clone().json()) as { entries: { id: string }[] };
      return entries.some(({ id }) => id === '1')
        ? answer(500, { title: 'Something went wrong.' })()
        : takesAll(request);
    });
    await outbox.flush('ilse', () => undefined);
    expect(outbox.current().map(({ id }) => id)).toEqual(['1']);
  });

  it('go out also when the device has no room for them', async () => {
    const { device } = await import('./device');
    vi.stubGlobal('indexedDB', {
      open: () => {
        throw new DOMException('full', 'QuotaExceededError');
      },
    });
    fetched.mockImplementation(() => Promise.reject(new TypeError('no network')));
    expect((await outbox.record([pending('1')])).state).toBe('kept');
    expect(outbox.current()).toHaveLength(1);
    expect(device.isFull()).toBe(true);
    fetched.mockImplementation(takesAll);
    await outbox.flush('ilse', () => undefined);
    expect(outbox.current()).toEqual([]);
    expect(device.isFull()).toBe(false);
  });
});
