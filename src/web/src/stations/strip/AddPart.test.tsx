import { fireEvent, render, screen, waitFor } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import type { LedgerNote, LedgerView } from '../../api/client';
import { AddPart } from './AddPart';

const view = {
  byName: [{ key: 'governor-spring', label: 'governor spring', remind: 'Write down hook and hole.' }],
} as unknown as LedgerView;

const shown = (settles = true) => {
  const record = vi.fn<(note: LedgerNote) => Promise<boolean>>().mockResolvedValue(settles);
  render(<AddPart view={view} busy={false} onRecord={record} />);
  return { record, what: screen.getByRole('combobox', { name: 'Something else came out' }) };
};

describe('a part that is named by hand', () => {
  it('says its words before it comes off', () => {
    const { what } = shown();
    expect(screen.queryByText(/Write down hook/)).toBeNull();
    fireEvent.change(what, { target: { value: ' Governor Spring ' } });
    expect(screen.getByRole('status').textContent).toBe('Before it comes off: Write down hook and hole.');
  });

  it('is known by its key, or has a key and a name of its own', async () => {
    const { record, what } = shown();
    fireEvent.change(what, { target: { value: 'governor spring' } });
    fireEvent.click(screen.getByRole('button', { name: 'Belongs' }));
    await waitFor(() => expect((what as HTMLInputElement).value).toBe(''));
    fireEvent.change(what, { target: { value: 'fuel tap' } });
    fireEvent.click(screen.getByRole('button', { name: 'Put in by us' }));
    await waitFor(() => expect(record).toHaveBeenCalledTimes(2));
    expect(record).toHaveBeenNthCalledWith(
      1,
      expect.objectContaining({ part: 'governor-spring', label: null, verdict: 'clean' }),
    );
    expect(record).toHaveBeenNthCalledWith(2, expect.objectContaining({ label: 'fuel tap', verdict: 'ours' }));
    expect(record.mock.calls[1]?.[0]).toHaveProperty('part', expect.stringMatching(/^extra:/));
  });

  it('keeps what was typed when it was not taken, and asks what it is', async () => {
    const { record, what } = shown(false);
    fireEvent.click(screen.getByRole('button', { name: 'Added by someone' }));
    expect(screen.getByText('Say what it is.')).toBeTruthy();
    expect(record).not.toHaveBeenCalled();
    fireEvent.change(what, { target: { value: 'wooden wedge' } });
    fireEvent.click(screen.getByRole('button', { name: 'Added by someone' }));
    await waitFor(() => expect(record).toHaveBeenCalledTimes(1));
    expect((what as HTMLInputElement).value).toBe('wooden wedge');
  });
});
