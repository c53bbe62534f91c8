import { fireEvent, render, screen, waitFor } from '@testing-library/react';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { LedgerNote, LedgerView } from '../../api/client';
import { HasParts } from './HasParts';

const optional = [
  { key: 'mounting-bolts', label: 'mounting bolts' },
  { key: 'choke-link', label: 'choke link' },
  { key: 'drain-bolt', label: 'bowl drain bolt' },
];

const shown = (over: object, settles = true) => {
  const record = vi.fn<(note: LedgerNote) => Promise<boolean>>().mockResolvedValue(settles);
  const view = { optional, has: {}, hasSaid: false, lines: [], byName: [], ...over } as unknown as LedgerView;
  const page = render(<HasParts draft="ilse:has:27" view={view} busy={false} onRecord={record} />);
  const say = screen.queryByRole('button', { name: 'Say what it has' });
  if (say) fireEvent.click(say);
  return { record, page };
};

describe('what only some carburetors have', () => {
  beforeEach(() => localStorage.clear());

  it('is asked once: what is there and what is not', async () => {
    const { record } = shown({});
    expect(screen.getByRole('button', { name: 'None of these' })).toBeTruthy();
    fireEvent.click(screen.getByRole('button', { name: 'choke link' }));
    fireEvent.click(screen.getByRole('button', { name: 'It has this one' }));
    await waitFor(() =>
      expect(record).toHaveBeenCalledWith({
        kind: 'has',
        has: ['choke-link'],
        hasNot: ['mounting-bolts', 'drain-bolt'],
      }),
    );
  });

  it('is not said of what came out: that is there', async () => {
    const { record } = shown({ lines: [{ part: { key: 'drain-bolt' }, state: 'out' }] });
    fireEvent.click(screen.getByRole('button', { name: 'None of these' }));
    await waitFor(() =>
      expect(record).toHaveBeenCalledWith({ kind: 'has', has: [], hasNot: ['mounting-bolts', 'choke-link'] }),
    );
  });

  it('starts with what the last one of its sheet had, and can be changed', () => {
    shown({ has: { 'mounting-bolts': true, 'choke-link': false } });
    expect(screen.getByText(/As the last one of its sheet it has: mounting bolts\./)).toBeTruthy();
    fireEvent.click(screen.getByRole('button', { name: 'Change what it has' }));
    expect(screen.getByRole('button', { name: 'mounting bolts' }).getAttribute('aria-pressed')).toBe('true');
    expect(screen.getByRole('button', { name: 'choke link' }).getAttribute('aria-pressed')).toBe('false');
  });

  it('keeps what was chosen through a reload and a refusal', async () => {
    const { page, record } = shown({}, false);
    fireEvent.click(screen.getByRole('button', { name: /drain bolt/ }));
    fireEvent.click(screen.getByRole('button', { name: 'It has this one' }));
    await waitFor(() => expect(record).toHaveBeenCalledOnce());
    page.unmount();
    shown({});
    expect(screen.getByRole('button', { name: 'It has this one' })).toBeTruthy();
  });

  it('says back what it was said to have none of', async () => {
    const { record } = shown({
      has: { insulator: false, 'choke-link': false },
      byName: [
        { key: 'insulator', label: 'insulator' },
        { key: 'choke-link', label: 'choke link' },
      ],
    });
    fireEvent.click(screen.getByRole('button', { name: 'It has one: insulator' }));
    await waitFor(() => expect(record).toHaveBeenCalledWith({ kind: 'has', has: ['insulator'], hasNot: [] }));
    expect(screen.queryByRole('button', { name: 'It has one: choke link' })).toBeNull();
  });

  it('asks nothing where nothing is optional', () => {
    const { page } = shown({ optional: [] });
    expect(page.container.textContent).toBe('');
  });
});
