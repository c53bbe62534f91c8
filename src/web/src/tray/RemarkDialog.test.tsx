import { fireEvent, render, screen } from '@testing-library/react';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { Entry, Note, RemarkFate, Tray } from '../api/client';
import { RemarkDialog } from './RemarkDialog';
import { remarksOf } from './remarks';

const record = vi.fn<(note: Note) => Promise<boolean>>();
vi.mock('../session/session', () => ({ usePerson: () => ({ id: 'ilse' }), useAllowed: () => true }));
vi.mock('../shell/queries', () => ({
  useLedger: () => ({ data: { lines: [{ part: { key: 'float', label: 'float with hinge pin' } }] } }),
}));
vi.mock('../shell/useRecord', () => ({
  useRecord: () => ({ record, busy: false, kept: false, problem: null, clear: () => undefined }),
}));

const remark = (
  id: string,
  fate: RemarkFate,
  words: string,
  more: Partial<Entry> = {},
  ends: string | null = null,
): Entry => ({
  id,
  kind: 'remark',
  lineKey: null,
  what: { text: words, quantities: [] },
  supersedes: null,
  superseded: false,
  by: 'Ilse',
  takenAt: '2026-12-01T08:00:00Z',
  remark: { fate, words, at: null, line: null, part: null, ends },
  ...more,
});

const tray = (logbook: Entry[]): Tray =>
  ({
    number: 27,
    logbook,
    lines: [{ key: 'gauging/main-jet', station: 'gauging', label: 'Main jet' }],
  }) as unknown as Tray;

describe('notes on a tray', () => {
  beforeEach(() => {
    localStorage.clear();
    record.mockReset().mockResolvedValue(true);
  });

  it('stand until they are taken back or at their end', () => {
    const standing = remarksOf(
      tray([
        remark('d', 'done', 'A new nut', {}, 'a'),
        remark('c', 'watch', 'The rope is frayed', { superseded: true }),
        remark('b', 'shopOnly', 'He owes for the last one'),
        remark('a', 'unsafe', 'The nut is cracked'),
      ]),
    );
    expect(standing.map((entry) => entry.id)).toEqual(['d', 'b']);
  });

  it('are written with a fate, on a line of the station, and what was typed stays until then', () => {
    const onClose = vi.fn();
    const { unmount } = render(<RemarkDialog tray={tray([])} station="gauging" onClose={onClose} />);
    fireEvent.click(screen.getByRole('button', { name: 'Write it down' }));
    expect(record).not.toHaveBeenCalled();
    fireEvent.change(screen.getByLabelText('What is there to say'), { target: { value: 'Its slot is torn' } });
    unmount();
    render(<RemarkDialog tray={tray([])} station="gauging" onClose={onClose} />);
    fireEvent.click(screen.getByRole('radio', { name: 'To watch' }));
    fireEvent.change(screen.getByLabelText('About'), { target: { value: 'gauging/main-jet' } });
    fireEvent.click(screen.getByRole('button', { name: 'Write it down' }));
    expect(record).toHaveBeenCalledWith({
      kind: 'remark',
      fate: 'watch',
      text: 'Its slot is torn',
      at: 'gauging',
      line: 'gauging/main-jet',
      part: null,
      ends: null,
    });
  });

  it('are written on a part where parts are in the hand', () => {
    render(<RemarkDialog tray={tray([])} station="strip" onClose={() => undefined} />);
    fireEvent.change(screen.getByLabelText('What is there to say'), { target: { value: 'A dent on one side' } });
    fireEvent.change(screen.getByLabelText('About'), { target: { value: 'part:float' } });
    fireEvent.click(screen.getByRole('button', { name: 'Write it down' }));
    expect(record).toHaveBeenCalledWith(expect.objectContaining({ line: null, part: 'float', fate: 'seen' }));
  });

  it('come to their end with what was done; one for the shop stays in the shop', () => {
    render(
      <RemarkDialog
        tray={tray([remark('b', 'shopOnly', 'He owes for the last one'), remark('a', 'unsafe', 'The nut is cracked')])}
        station="gauging"
        onClose={() => undefined}
      />,
    );
    const end = (words: string, done: string): void => {
      fireEvent.click(screen.getByRole('button', { name: `It is done: ${words}` }));
      fireEvent.change(screen.getByLabelText('What was done'), { target: { value: done } });
      fireEvent.submit(screen.getByLabelText('What was done'));
    };
    end('The nut is cracked', 'A new nut');
    expect(record).toHaveBeenLastCalledWith(
      expect.objectContaining({ fate: 'done', text: 'The nut is cracked: A new nut', ends: 'a' }),
    );
  });
});
