import { act, renderHook } from '@testing-library/react';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { device } from './device';
import { isKept, useKept } from './drafts';

describe('what is kept on the device', () => {
  beforeEach(() => localStorage.clear());

  it('survives a reload and is gone once it is cleared', () => {
    const first = renderHook(() => useKept('ilse:27:main', ''));
    act(() => first.result.current[1]('0.7'));
    first.unmount();
    const again = renderHook(() => useKept('ilse:27:main', ''));
    expect(again.result.current[0]).toBe('0.7');
    act(() => again.result.current[2]());
    expect(again.result.current[0]).toBe('');
    expect(isKept('ilse:27:main')).toBe(false);
  });

  it('is the same wherever it is used, and another’s is another’s', () => {
    const sheet = renderHook(() => useKept('ilse:history', true));
    const card = renderHook(() => useKept('ilse:history', true));
    const jory = renderHook(() => useKept('jory:history', true));
    act(() => sheet.result.current[1](false));
    expect(card.result.current[0]).toBe(false);
    expect(jory.result.current[0]).toBe(true);
  });

  it('is empty again when the device holds something unreadable', () => {
    localStorage.setItem('draft:ilse:27:main', '{half');
    expect(renderHook(() => useKept('ilse:27:main', 'nothing')).result.current[0]).toBe('nothing');
  });

  it('is typed on when the device is full, and says so', () => {
    const full = vi.spyOn(Storage.prototype, 'setItem').mockImplementation(() => {
      throw new DOMException('full', 'QuotaExceededError');
    });
    const typed = renderHook(() => useKept('ilse:27:main', ''));
    act(() => typed.result.current[1]('0.7'));
    act(() => typed.result.current[1]('0.71'));
    expect(typed.result.current[0]).toBe('0.71');
    expect(device.isFull()).toBe(true);
    full.mockRestore();
    act(() => typed.result.current[1]('0.715'));
    expect(device.isFull()).toBe(false);
    expect(localStorage.getItem('draft:ilse:27:main')).toBe('"0.715"');
  });
});
