import { fireEvent, render, screen, waitFor } from '@testing-library/react';
import { beforeAll, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Problem, Screw, Tray, TurnsNote } from '../api/client';

const { record, said } = vi.hoisted(() => ({
  record: vi.fn<(note: TurnsNote) => Promise<boolean>>(),
  said: { problem: null as Problem | null, off: undefined as string | undefined },
}));
vi.mock('../session/session', () => ({ usePerson: () => ({ id: 'ilse' }), useOff: () => said.off }));
vi.mock('../shell/useRecord', () => ({ useRecord: () => ({ record, busy: false, problem: said.problem }) }));

// Files share their modules: another file's may have loaded the card with its own stand-ins.
let ScrewCard: typeof import('./ScrewCard').ScrewCard;
beforeAll(async () => {
  vi.resetModules();
  ({ ScrewCard } = await import('./ScrewCard'));
});

const idle: Screw = {
  part: 'idle-needle',
  label: 'idle mixture screw',
  isIn: true,
  eighths: 12,
  foundEighths: 9,
  steps: [{ from: 10, to: 12, why: 'Hunts', at: '2026-11-02T09:00:00Z', by: 'Jory' }],
};
const shown = (screw: Partial<Screw> = {}) =>
  render(<ScrewCard tray={{ number: 27 } as Tray} screws={[{ ...idle, ...screw }]} most={80} />);
const open = () => fireEvent.click(screen.getByRole('button', { name: 'Turned: idle mixture screw' }));
const more = (group: string, what: string) =>
  fireEvent.click(
    [...screen.getByRole('group', { name: group }).querySelectorAll('button')].find(
      (one) => one.getAttribute('aria-label') === what,
    ) as HTMLButtonElement,
  );

describe('screws whose turns are counted', () => {
  beforeEach(() => {
    localStorage.clear();
    record.mockReset();
    said.problem = null;
    said.off = undefined;
  });

  it('stand with where they were found and what they were turned for', () => {
    shown();
    expect(screen.getByText('1½')).toBeTruthy();
    expect(screen.getByText('found at 1⅛')).toBeTruthy();
    expect(screen.getByRole('list', { name: /How it was turned/ }).textContent).toContain('1¼ to 1½, because: Hunts');
  });

  it('are turned from where they stand, and the draft outlives a reload', async () => {
    record.mockResolvedValue(true);
    const page = shown();
    open();
    more('It stands at: idle mixture screw', '¼ turn more');
    fireEvent.change(screen.getByRole('textbox', { name: 'Why' }), { target: { value: 'Dies when warm' } });
    page.unmount();
    shown();
    expect(screen.getByRole<HTMLInputElement>('textbox', { name: 'Why' }).value).toBe('Dies when warm');
    fireEvent.click(screen.getByRole('button', { name: 'Record it' }));
    await waitFor(() =>
      expect(record).toHaveBeenCalledWith({
        kind: 'turns',
        part: 'idle-needle',
        turnsEighths: 14,
        fromEighths: null,
        why: 'Dies when warm',
      }),
    );
    await waitFor(() => expect(screen.queryByRole('textbox', { name: 'Why' })).toBeNull());
  });

  it('that nobody counted are asked where they stood', async () => {
    record.mockResolvedValue(true);
    shown({ eighths: null, foundEighths: null, steps: [] });
    expect(screen.getByText('not counted yet')).toBeTruthy();
    open();
    fireEvent.click(screen.getByRole('button', { name: 'Record it' }));
    expect(record).not.toHaveBeenCalled();
    more('It stood at: idle mixture screw', '1 turn more');
    more('It stands at: idle mixture screw', '1 turn more');
    more('It stands at: idle mixture screw', '⅛ turn more');
    fireEvent.click(screen.getByRole('button', { name: 'Record it' }));
    await waitFor(() =>
      expect(record).toHaveBeenCalledWith(expect.objectContaining({ turnsEighths: 9, fromEighths: 8, why: null })),
    );
  });

  it('keep what was typed when it was refused, and say why', async () => {
    record.mockResolvedValue(false);
    said.problem = {
      status: 400,
      title: 'No.',
      detail: '',
      errors: { 'note.turnsEighths': ['Give turns from 0 to 10.'] },
    };
    shown();
    open();
    fireEvent.click(screen.getByRole('button', { name: 'Record it' }));
    expect(screen.getByRole('alert').textContent).toBe('Give turns from 0 to 10.');
    await waitFor(() => expect(record).toHaveBeenCalledTimes(1));
    expect(screen.getByRole('textbox', { name: 'Why' })).toBeTruthy();
  });

  it('are only read where nobody may record, and none is shown that lies on the bench', () => {
    said.off = 'Only to read.';
    const page = shown();
    expect(screen.queryByRole('button')).toBeNull();
    page.unmount();
    shown({ isIn: false });
    expect(screen.queryByText('idle mixture screw')).toBeNull();
  });
});
