import { act, render, screen } from '@testing-library/react';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { announce, Announcer, tell } from './announce';

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

const said = (): string => screen.getByRole('status').textContent.trim();

test('of two things said at once both are heard, one after the other', () => {
  render(<Announcer />);
  act(() => {
    announce('Main jet: In gauge.');
    announce('Idle jet: In gauge.');
  });
  expect(said()).toBe('Main jet: In gauge.');
  act(() => void vi.advanceTimersByTime(200));
  expect(said()).toBe('Idle jet: In gauge.');
  act(() => void vi.advanceTimersByTime(10_000));
  expect(said()).toBe('Idle jet: In gauge.');
});

test('what is shown goes after a while, and the same words again are a change', () => {
  render(<Announcer />);
  act(() => tell('Choose a kit first.'));
  const first = screen.getByRole('status').textContent;
  act(() => void vi.advanceTimersByTime(200));
  act(() => tell('Choose a kit first.'));
  expect(screen.getByRole('status').textContent).not.toBe(first);
  act(() => void vi.advanceTimersByTime(10_000));
  expect(said()).toBe('');
});
