import { fireEvent, render, screen, waitFor } from '@testing-library/react';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { CleaningNote, CleaningPiece, RecipeOffer } from '../../api/client';
import { GoesIn } from './GoesIn';
import { Outcome } from './Outcome';

const pieces: CleaningPiece[] = [
  { key: 'body', label: 'body of the carburetor', material: 'metal' },
  { key: 'bowl', label: 'bowl', material: 'metal' },
  { key: 'main-jet', label: 'main jet', material: 'metal' },
  { key: 'idle-jet', label: 'idle jet', material: 'plastic' },
];
const offer = (over: Partial<RecipeOffer> = {}): RecipeOffer =>
  ({
    recipe: { key: 'acid', label: 'Acid soak', minutes: 720, outFirst: ['rubber', 'plastic'], vessel: 'tub' },
    goesIn: ['bowl', 'main-jet'],
    takeOutFirst: ['inlet seat'],
    ...over,
  }) as RecipeOffer;
const record = vi.fn<(note: CleaningNote) => Promise<boolean>>();
const shown = (of = offer()) =>
  render(<GoesIn draft="ilse:27" offer={of} pieces={pieces} mayRecord problem={null} record={record} />);
const press = (name: string | RegExp) => fireEvent.click(screen.getByRole('button', { name }));

beforeEach(() => {
  localStorage.clear();
  record.mockReset().mockResolvedValue(true);
});

describe('what goes in', () => {
  it('says what lies in the dish, and what keeps the body out', () => {
    shown();
    expect(screen.getByText('bowl, main jet')).toBeTruthy();
    expect(screen.getByText(/The body only without: inlet seat/)).toBeTruthy();
    press('Other pieces: Acid soak');
    expect(screen.queryByRole('button', { name: 'body of the carburetor' })).toBeNull();
  });

  it('takes the pieces that are chosen, and a reason for one that is soft', async () => {
    shown();
    press('Other pieces: Acid soak');
    press('bowl');
    press('idle jet');
    fireEvent.change(screen.getByRole('textbox', { name: 'Why this may go in here: idle jet' }), {
      target: { value: 'It is brass on this one' },
    });
    press('These go in');
    await waitFor(() =>
      expect(record).toHaveBeenCalledWith({
        kind: 'method',
        recipe: 'acid',
        step: 'chosen',
        pieces: ['main-jet', 'idle-jet'],
        soBecause: 'It is brass on this one',
      }),
    );
    // What was taken is not typed any more.
    await waitFor(() => expect(screen.queryByRole('button', { name: 'These go in' })).toBeNull());
  });

  it('keeps what was chosen through a reload and when it is refused', async () => {
    record.mockResolvedValue(false);
    const page = shown();
    press('Other pieces: Acid soak');
    press('bowl');
    page.unmount();
    shown();
    expect(screen.getByRole('button', { name: 'bowl' }).getAttribute('data-state')).toBe('off');
    press('These go in');
    await waitFor(() => expect(record).toHaveBeenCalled());
    expect(screen.getByRole('button', { name: 'bowl' }).getAttribute('data-state')).toBe('off');
  });

  it('does not send a body that has something soft in it again', async () => {
    shown(offer({ goesIn: ['body', 'bowl'] }));
    press('Other pieces: Acid soak');
    press('These go in');
    await waitFor(() =>
      expect(record).toHaveBeenCalledWith({ kind: 'method', recipe: 'acid', step: 'chosen', pieces: ['bowl'] }),
    );
  });

  it('does not send nothing', () => {
    shown();
    press('Other pieces: Acid soak');
    press('bowl');
    press('main jet');
    press('These go in');
    expect(record).not.toHaveBeenCalled();
  });
});

describe('what became of it', () => {
  const done = () =>
    render(<Outcome draft="ilse:27" offer={offer()} mayRecord busy={false} problem={null} record={record} />);
  const minutes = () => screen.getByRole<HTMLInputElement>('textbox', { name: 'Minutes it took' });

  it.each([
    ['It is done: Acid soak', 'clean'],
    ['Not clean yet: Acid soak', 'notYet'],
    ['No cleaner: Acid soak', 'noChange'],
  ])('%s', async (name, result) => {
    done();
    fireEvent.change(minutes(), { target: { value: '1440' } });
    press(name);
    await waitFor(() =>
      expect(record).toHaveBeenCalledWith({
        kind: 'method',
        recipe: 'acid',
        step: 'done',
        result,
        pieces: ['bowl', 'main-jet'],
        minutes: 1440,
      }),
    );
  });

  it('asks for no minutes, and refuses what is none', async () => {
    done();
    fireEvent.change(minutes(), { target: { value: 'twelve' } });
    press('It is done: Acid soak');
    expect(screen.getByText('A number of minutes, or nothing.')).toBeTruthy();
    expect(record).not.toHaveBeenCalled();
    fireEvent.change(minutes(), { target: { value: '' } });
    press('It is done: Acid soak');
    await waitFor(() =>
      expect(record).toHaveBeenCalledWith({
        kind: 'method',
        recipe: 'acid',
        step: 'done',
        result: 'clean',
        pieces: ['bowl', 'main-jet'],
      }),
    );
  });
});
