import { fireEvent, render, screen, waitFor } from '@testing-library/react';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { LedgerLine, LedgerNote } from '../../api/client';
import { CameBad } from './CameBad';

const line = {
  part: { key: 'fuel-tap', label: 'fuel tap' },
  fitted: { fate: 'renewed', item: 'FT-06' },
} as unknown as LedgerLine;

const shown = (settles = true, errors: Record<string, string[]> = {}) => {
  const record = vi.fn<(note: LedgerNote) => Promise<boolean>>().mockResolvedValue(settles);
  const page = render(<CameBad draft="ilse:bad:27" line={line} busy={false} errors={errors} onRecord={record} />);
  return { record, page };
};
const box = (name: string) => screen.getByRole<HTMLInputElement>('textbox', { name });

describe('a new part that came bad', () => {
  beforeEach(() => localStorage.clear());

  it('is out again with what is wrong and who it is from', async () => {
    const { record } = shown();
    fireEvent.click(screen.getByRole('button', { name: 'It came bad: fuel tap' }));
    fireEvent.click(screen.getByRole('button', { name: 'Out, it came bad: fuel tap' }));
    expect(record).not.toHaveBeenCalled();
    fireEvent.change(box('What is wrong with it'), { target: { value: ' leaks at its stem ' } });
    fireEvent.click(screen.getByRole('button', { name: 'Out, it came bad: fuel tap' }));
    await waitFor(() =>
      expect(record).toHaveBeenCalledWith({
        kind: 'cameBad',
        part: 'fuel-tap',
        what: 'leaks at its stem',
        supplier: null,
      }),
    );
    await waitFor(() => expect(box('What is wrong with it').value).toBe(''));
  });

  it('keeps what was typed when it was not taken', async () => {
    const { page, record } = shown(false);
    fireEvent.click(screen.getByRole('button', { name: 'It came bad: fuel tap' }));
    fireEvent.change(box('What is wrong with it'), { target: { value: 'cracked' } });
    fireEvent.change(box('Who from'), { target: { value: 'The chandler' } });
    fireEvent.click(screen.getByRole('button', { name: 'Out, it came bad: fuel tap' }));
    await waitFor(() => expect(record).toHaveBeenCalledOnce());
    page.unmount();
    shown(false, { 'note.supplier': ['Shorten it.'] });
    expect(box('What is wrong with it').value).toBe('cracked');
    expect(box('Who from').value).toBe('The chandler');
    expect(screen.getByText('Shorten it.')).toBeTruthy();
  });
});
