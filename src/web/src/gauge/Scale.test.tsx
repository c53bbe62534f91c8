import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { render } from '@testing-library/react';
import { expect, it, vi } from 'vitest';
import type { Judgement } from '../api/client';
import { Scale } from './Scale';

vi.mock('../session/session', () => ({ useUnits: () => 'inch' }));

const notRead = { verdict: 'notRead', word: 'Not read', found: null } as unknown as Judgement;

it.each([
  [0.71, 0.73],
  [0.315, 0.345],
  [0, 0.05],
  [0.97, 1.03],
])('keeps both ends of a window from %f to %f mm on the drawing in inches', (low, high) => {
  const { container } = render(
    <QueryClientProvider client={new QueryClient()}>
      <Scale window={{ dimension: 'length', low, high }} judgement={notRead} label="Main jet" />
    </QueryClientProvider>,
  );
  const [left, right] = [...container.querySelectorAll('text')].map((text) => ({
    at: Number(text.getAttribute('x')),
    wide: text.textContent.length * 10.4, // a digit of the figures’ typeface at 16 units, measured
  }));
  if (!left || !right) throw new Error('both ends are written');
  expect(left.at - left.wide).toBeGreaterThanOrEqual(0);
  expect(right.at + right.wide).toBeLessThanOrEqual(140);
  expect(right.at).toBeGreaterThan(left.at + 4);
});
