import { fireEvent, render, screen, waitFor } from '@testing-library/react';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { SoHere } from './SoHere';

const shown = (say: (because: string) => Promise<boolean>, problem?: string) =>
  render(<SoHere draft="ilse:so:27:bowl" label="bowl" shortest={10} busy={false} problem={problem} onSay={say} />);
const box = () => screen.getByRole<HTMLInputElement>('textbox', { name: 'So on this machine, because' });

describe('so on this machine, because', () => {
  beforeEach(() => localStorage.clear());

  it('is not said without a reason', () => {
    const say = vi.fn<(because: string) => Promise<boolean>>();
    shown(say);
    fireEvent.click(screen.getByRole('button', { name: 'It is so' }));
    // One that would be refused is not sent either: the part would stay out.
    fireEvent.change(box(), { target: { value: '  too short ' } });
    fireEvent.click(screen.getByRole('button', { name: 'It is so' }));
    expect(say).not.toHaveBeenCalled();
  });

  it('keeps the reason through a reload and until it is taken', async () => {
    const say = vi.fn<(because: string) => Promise<boolean>>().mockResolvedValueOnce(false).mockResolvedValueOnce(true);
    const page = shown(say);
    fireEvent.change(box(), { target: { value: 'The jet goes in from above' } });
    page.unmount();
    shown(say);
    expect(box().value).toBe('The jet goes in from above');
    fireEvent.click(screen.getByRole('button', { name: 'It is so' }));
    await waitFor(() => expect(say).toHaveBeenCalledWith('The jet goes in from above'));
    expect(box().value).toBe('The jet goes in from above');
    fireEvent.click(screen.getByRole('button', { name: 'It is so' }));
    await waitFor(() => expect(box().value).toBe(''));
  });

  it('says at the box why the reason does not do', () => {
    shown(() => Promise.resolve(false), 'Give a reason of at least 10 characters.');
    expect(screen.getByRole('alert').textContent).toBe('Give a reason of at least 10 characters.');
  });
});
