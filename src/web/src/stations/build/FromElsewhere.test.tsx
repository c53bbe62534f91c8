import { fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { describe, expect, it, vi } from 'vitest';
import { FromElsewhere, gotten, nothingGot, type Got } from './FromElsewhere';

/** The form as Build holds it: what is typed stays. */
function Held({ errors, onTake }: { errors: Record<string, string[]>; onTake: (got: Got) => void }) {
  const [got, setGot] = useState<Got>(nothingGot);
  return (
    <FromElsewhere
      part="float"
      currency="EUR"
      value={got}
      errors={errors}
      onChange={setGot}
      onTake={() => onTake(got)}
    />
  );
}

const shown = (errors: Record<string, string[]> = {}) => {
  const take = vi.fn<(got: Got) => void>();
  render(<Held errors={errors} onTake={take} />);
  return { take, go: screen.getByRole('button', { name: 'It is in, from elsewhere' }) };
};

describe('a new part from elsewhere', () => {
  it('is taken once it is said where it came from, with what was typed', () => {
    const { take, go } = shown();
    fireEvent.click(go);
    expect(take).not.toHaveBeenCalled();
    fireEvent.click(screen.getByRole('radio', { name: 'Over the counter' }));
    fireEvent.change(screen.getByRole('textbox', { name: 'What it is' }), { target: { value: 'brass float' } });
    fireEvent.change(screen.getByRole('textbox', { name: 'From whom' }), { target: { value: ' the chandler ' } });
    fireEvent.change(screen.getByRole('textbox', { name: 'Price, EUR' }), { target: { value: '12,50' } });
    fireEvent.click(screen.getByRole('radio', { name: 'A near match' }));
    fireEvent.click(go);
    const got = take.mock.calls[0]?.[0];
    expect(got?.match).toBe('near');
    expect(got && gotten(got)).toEqual({
      origin: 'overTheCounter',
      what: 'brass float',
      fromWhom: 'the chandler',
      price: 12.5,
    });
  });

  it('says what is wrong at its own box', () => {
    shown({ 'note.elsewhere.what': ['Say what it is.'], 'note.elsewhere.price': ['Give a price.'] });
    expect(screen.getByRole('textbox', { name: 'What it is' }).getAttribute('aria-invalid')).toBe('true');
    expect(screen.getByText('Give a price.')).toBeTruthy();
    expect(screen.getByRole('textbox', { name: 'From whom' }).getAttribute('aria-invalid')).toBeNull();
  });

  it.each([
    ['', null],
    ['8', 8],
    ['8.25', 8.25],
    ['eight', -1],
  ])('sends the price “%s” as %s: what is no number is refused, not left out', (price, sent) => {
    expect(gotten({ ...nothingGot, origin: 'offARoll', price })?.price).toBe(sent);
  });

  it('is nothing while nobody said where it came from', () => {
    expect(gotten({ ...nothingGot, what: 'hose' })).toBeNull();
  });
});
