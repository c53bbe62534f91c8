import { fireEvent, render, screen } from '@testing-library/react';
import { MemoryRouter } from 'react-router';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { OpenFault, Trace, TraceNote } from '../../api/client';
import { OpenList } from './OpenList';

vi.mock('../../session/session', () => ({ usePerson: () => ({ id: 'ilse' }) }));

const plug: OpenFault = {
  id: 'plug-loose',
  key: 'faults/open-plug-loose',
  label: 'Plug found loose in its thread',
  causeId: 'plug-loose',
  findingId: 'plug-loose',
  state: 'notMended',
  word: 'not mended',
  since: '2026-12-01T08:00:00Z',
  seen: 'Plug found loose in its thread',
  isDanger: false,
};
const power: OpenFault = {
  ...plug,
  id: 'low-power',
  key: 'faults/open-low-power',
  label: 'Less power than it had',
  causeId: null,
  findingId: 'low-power',
  state: 'notTried',
  word: 'mended, not tried again',
};

const shown = (open: OpenFault[]) => {
  const record = vi.fn<(note: TraceNote) => Promise<boolean>>().mockResolvedValue(true);
  render(
    <MemoryRouter>
      <OpenList tray={27} open={open} trace={{ causes: [] } as unknown as Trace} mayRecord record={record} />
    </MemoryRouter>,
  );
  return record;
};

describe('what is open at Trace', () => {
  beforeEach(() => localStorage.clear());

  it('is not there when nothing is', () => {
    shown([]);
    expect(screen.queryByRole('region')).toBeNull();
  });

  it('is tried again: gone, or still there', () => {
    const record = shown([power]);
    fireEvent.click(screen.getByRole('button', { name: 'Tried again, gone: Less power than it had' }));
    fireEvent.click(screen.getByRole('button', { name: 'Still there: Less power than it had' }));
    const said = record.mock.calls.map(([note]) => (note.kind === 'findings' ? note.answers[0]?.said : note.kind));
    expect(said).toEqual(['absent', 'present']);
  });

  it('was put right in words of one’s own, or done in vain', () => {
    const record = shown([plug]);
    fireEvent.click(screen.getByRole('button', { name: /^What became of it/ }));
    fireEvent.change(screen.getByLabelText('What was done, in your words'), { target: { value: 'New thread insert' } });
    fireEvent.click(screen.getByRole('button', { name: 'Yes, it was that' }));
    fireEvent.click(screen.getByRole('button', { name: 'Done, did not cure it' }));
    expect(record).toHaveBeenNthCalledWith(
      1,
      expect.objectContaining({ causeId: 'plug-loose', outcome: 'fixed', done: 'New thread insert' }),
    );
    expect(record).toHaveBeenNthCalledWith(2, expect.objectContaining({ outcome: 'noCure', done: null }));
  });

  it('is left only with a reason and the owner’s word, and what was typed stays', () => {
    const record = shown([plug]);
    fireEvent.click(screen.getByRole('button', { name: /^What became of it/ }));
    fireEvent.click(screen.getByRole('button', { name: 'Leave it as it is' }));
    fireEvent.change(screen.getByLabelText('Why it stays as it is'), { target: { value: 'The thread is worn out' } });
    fireEvent.click(screen.getByRole('button', { name: 'It stays as it is' }));
    expect(record).not.toHaveBeenCalled();
    expect(screen.getByText('Write in at least 10 characters what the owner said.')).toBeTruthy();
    fireEvent.change(screen.getByLabelText('What the owner says to it, and when'), {
      target: { value: 'Leave it, on the phone today' },
    });
    fireEvent.click(screen.getByRole('button', { name: 'It stays as it is' }));
    expect(record).toHaveBeenCalledWith(
      expect.objectContaining({
        outcome: 'left',
        reason: 'The thread is worn out',
        ownerSaid: 'Leave it, on the phone today',
      }),
    );
  });
});
