import { renderHook } from '@testing-library/react';
import { expect, it } from 'vitest';
import { useTitle } from './title';

it('marks a call in the tab whatever page is opened meanwhile, and leaves the page its title', () => {
  const page = renderHook(({ text }) => useTitle(text), { initialProps: { text: 'Tray 27' } });
  expect(document.title).toBe('Tray 27');
  const ringing: { text: string | null } = { text: '●' };
  const call = renderHook(({ text }) => useTitle(text, true), { initialProps: ringing });
  expect(document.title).toBe('● Tray 27');
  page.rerender({ text: 'Tray 31' });
  expect(document.title).toBe('● Tray 31');
  call.rerender({ text: null });
  expect(document.title).toBe('Tray 31');
  page.unmount();
  expect(document.title).toBe('Blue Dawn');
});
