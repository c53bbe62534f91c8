import { fireEvent, render } from '@testing-library/react';
import { expect, it, vi } from 'vitest';
import { Pressable } from './pressable';

it('is pressed by pointer, by Enter and by Space, and by nothing else', () => {
  const press = vi.fn();
  const { getByRole } = render(
    <svg>
      <Pressable label="Main jet" onPress={press}>
        <rect width={4} height={4} />
      </Pressable>
    </svg>,
  );
  const shape = getByRole('button', { name: 'Main jet' });
  fireEvent.click(shape);
  fireEvent.keyDown(shape, { key: 'Enter' });
  fireEvent.keyDown(shape, { key: ' ' });
  fireEvent.keyDown(shape, { key: 'a' });
  expect(press).toHaveBeenCalledTimes(3);
  expect(shape.getAttribute('tabindex')).toBe('0');
});
