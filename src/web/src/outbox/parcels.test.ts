import 'fake-indexeddb/auto';
import { IDBFactory } from 'fake-indexeddb';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { CheckInParcel } from './parcels';

const checkIn: CheckInParcel = {
  what: 'checkIn',
  id: 'tray-1',
  personId: 'ilse',
  takenAt: '2026-11-24T10:00:00Z',
  body: { trayId: 'tray-1', machineName: 'Winch' } as CheckInParcel['body'],
};

const answer = (status: number, body: unknown): Response =>
  new Response(JSON.stringify(body), { status, headers: { 'content-type': 'application/json' } });

describe('check-ins and photos on their way', () => {
  const fetched = vi.fn<typeof fetch>();
  let parcels: typeof import('./parcels').parcels;
  let photoParcel: typeof import('./parcels').photoParcel;
  const file = new File(['x'], 'front.jpg', { type: 'image/jpeg' });

  beforeEach(async () => {
    vi.resetModules();
    vi.stubGlobal('indexedDB', new IDBFactory());
    fetched.mockReset();
    vi.stubGlobal('fetch', fetched);
    ({ parcels, photoParcel } = await import('./parcels'));
  });

  it('go out in order: the photo after the check-in it came with, to the tray that one got', async () => {
    await parcels.keep(checkIn, photoParcel('ilse', file, { tray: null, checkIn: 'tray-1' }));
    const asked: string[] = [];
    fetched.mockImplementation((request, init) => {
      asked.push(request instanceof Request ? new URL(request.url).pathname : String(request));
      return Promise.resolve(init?.method === 'PUT' ? answer(200, { id: 'p' }) : answer(201, { number: 41 }));
    });
    expect(await parcels.flush('ilse')).toEqual([41, 41]);
    expect(asked[0]).toBe('/api/trays');
    expect(asked[1]).toMatch(/^\/api\/trays\/41\/photos\//);
    expect(parcels.current()).toEqual([]);
  });

  it('stay while the server is away, and are nobody else’s', async () => {
    await parcels.keep(checkIn);
    fetched.mockImplementation(() => Promise.reject(new TypeError('no network')));
    await parcels.flush('ilse');
    expect(parcels.current()).toHaveLength(1);
    fetched.mockImplementation(() => Promise.resolve(answer(201, { number: 41 })));
    expect(await parcels.flush('jory')).toBeNull();
    expect(parcels.current()).toHaveLength(1);
  });

  it('that are refused stay in sight until they are settled, with the photos that came with them', async () => {
    await parcels.keep(checkIn, photoParcel('ilse', file, { tray: null, checkIn: 'tray-1' }));
    fetched.mockImplementation(() =>
      Promise.resolve(answer(400, { title: 'No', errors: { family: ['Which kind?'] } })),
    );
    await parcels.flush('ilse');
    expect(parcels.refusedOf('ilse')).toBe(1);
    expect(parcels.refused()).toMatchObject([{ problem: { errors: { family: ['Which kind?'] } } }]);
    await parcels.drop('tray-1');
    expect([parcels.refused(), parcels.current()]).toEqual([[], []]);
  });
});
