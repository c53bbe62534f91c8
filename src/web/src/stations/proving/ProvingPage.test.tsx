import { fireEvent, render, screen, waitFor } from '@testing-library/react';
import { MemoryRouter } from 'react-router';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { LedgerView, Problem, Tray, TrialNote } from '../../api/client';
import type { StationProps } from '../../tray/stationPage';
import ProvingPage from './ProvingPage';

const { record, said } = vi.hoisted(() => ({
  record: vi.fn<(note: TrialNote) => Promise<boolean>>(),
  said: { problem: null as Problem | null, ledger: undefined as Partial<LedgerView> | undefined },
}));
vi.mock('../../session/session', () => ({ usePerson: () => ({ id: 'ilse' }), useOff: () => undefined }));
vi.mock('../../shell/useRecord', () => ({ useRecord: () => ({ record, busy: false, ...said }) }));
vi.mock('../../shell/queries', () => ({ useLedger: () => ({ data: said.ledger }) }));
vi.mock('../../gauge/LinesPage', () => ({ LinesPage: ({ locked }: { locked?: string }) => <p>{locked ?? 'open'}</p> }));

const shown = (of: Partial<Tray>) => {
  const tray = {
    number: 27,
    whyNotProven: null,
    triedWithout: [],
    whyNotRun: null,
    runAfter: null,
    dangers: [],
    ...of,
  } as unknown as Tray;
  return render(
    <MemoryRouter>
      <ProvingPage {...({ tray } as StationProps)} />
    </MemoryRouter>,
  );
};
const because = () => screen.getByRole<HTMLInputElement>('textbox', { name: 'Try it as it stands, because' });

describe('Prove before all is on', () => {
  beforeEach(() => {
    localStorage.clear();
    record.mockReset();
    said.problem = null;
    said.ledger = undefined;
  });

  it('is a trial where only parts are off that may be, and says what counts', () => {
    shown({ triedWithout: ['filter housing'] });
    expect(screen.getByText('A trial, without filter housing.')).toBeTruthy();
    expect(screen.getByText('open')).toBeTruthy();
    expect(screen.queryByRole('textbox')).toBeNull();
  });

  it('wants a reason for another part, and keeps it through a reload until it is taken', async () => {
    record.mockResolvedValueOnce(false).mockResolvedValueOnce(true);
    const page = shown({ whyNotProven: 'One line of the ledger is open: idle jet.' });
    expect(screen.getByText('Not to be proven yet')).toBeTruthy();
    fireEvent.change(because(), { target: { value: 'The jet comes on Friday' } });
    page.unmount();
    shown({ whyNotProven: 'One line of the ledger is open: idle jet.' });
    expect(because().value).toBe('The jet comes on Friday');
    fireEvent.click(screen.getByRole('button', { name: 'Try it' }));
    await waitFor(() => expect(record).toHaveBeenCalledWith({ kind: 'trial', because: 'The jet comes on Friday' }));
    expect(because().value).toBe('The jet comes on Friday');
    fireEvent.click(screen.getByRole('button', { name: 'Try it' }));
    await waitFor(() => expect(because().value).toBe(''));
  });

  it('says at the box why there is no reason that would do', () => {
    said.problem = {
      status: 400,
      title: 'Something that was entered cannot be used.',
      detail: '',
      errors: { 'note.because': ['Not without: bowl. Fuel would run out.'] },
    };
    shown({ whyNotProven: 'One line of the ledger is open: bowl.' });
    expect(screen.getByText('Not without: bowl. Fuel would run out.')).toBeTruthy();
  });

  it('shows the screws that are turned while it runs, once the ledger is there', () => {
    said.ledger = {
      mostEighths: 80,
      screws: [
        { part: 'low-needle', label: 'low-speed needle (L)', isIn: true, eighths: 10, foundEighths: null, steps: [] },
      ],
    };
    shown({});
    expect(screen.getByRole('region', { name: 'Screws' }).textContent).toContain('low-speed needle (L)1¼');
  });
});
