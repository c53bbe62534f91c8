import { fireEvent, render, screen } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import { Choice } from './choice';

const options = [
  { value: 'yes', label: 'Yes' },
  { value: 'no', label: 'No' },
] as const;

describe('a choice', () => {
  it('is made by a touch and stays when it is touched again', () => {
    const onChange = vi.fn();
    render(<Choice label="Hunts?" value="yes" options={options} onChange={onChange} />);
    fireEvent.click(screen.getByRole('radio', { name: 'Yes' }));
    expect(onChange).not.toHaveBeenCalled();
    fireEvent.click(screen.getByRole('radio', { name: 'No' }));
    expect(onChange).toHaveBeenCalledWith('no');
  });

  it('can be taken back where nothing chosen is an answer', () => {
    const onClear = vi.fn();
    render(<Choice label="Hunts?" value="yes" options={options} onChange={() => undefined} onClear={onClear} />);
    fireEvent.click(screen.getByRole('radio', { name: 'Yes' }));
    expect(onClear).toHaveBeenCalledOnce();
  });
});
