import { QueryClient, QueryClientProvider, useQuery } from '@tanstack/react-query';
import { act, renderHook, waitFor } from '@testing-library/react';
import type { ReactNode } from 'react';
import { expect, it } from 'vitest';
import { keys } from '../api/keys';
import type { Line, Tray, TrayPatch } from '../api/client';
import { patched, useTakePatch } from './queries';

it('asks again for what was already on its way when an entry was recorded', async () => {
  const queries = new QueryClient();
  const wrapper = ({ children }: { children: ReactNode }) => (
    <QueryClientProvider client={queries}>{children}</QueryClientProvider>
  );
  const answers: ((report: string) => void)[] = [];
  const { result } = renderHook(
    () => ({
      take: useTakePatch(),
      report: useQuery({
        queryKey: keys.report(7),
        queryFn: () => new Promise<string>((answer) => answers.push(answer)),
      }),
    }),
    { wrapper },
  );
  await waitFor(() => expect(answers).toHaveLength(1));
  let taken: Promise<void> | undefined;
  act(() => void (taken = result.current.take(7, null)));
  await waitFor(() => expect(answers).toHaveLength(2));
  await act(async () => {
    answers[1]?.('handed back');
    answers[0]?.('not handed back yet');
    await taken;
  });
  await waitFor(() => expect(result.current.report.data).toBe('handed back'));
});

it('puts a patch in place of what it changes, and every line of a whole sheet', () => {
  const line = (key: string, word: string): Line => ({ key, judgement: { word } }) as unknown as Line;
  const tray = { revision: 4, version: 1, lines: [line('a', 'Not read'), line('b', 'Not read')], logbook: [] };
  const patch = { revision: 5, revisionBefore: 4, factsChanged: false, entries: [], lines: [line('b', 'Good')] };
  const words = (whole: boolean, lines: Line[]): string[] | undefined =>
    patched(tray as unknown as Tray, { ...patch, wholeSheet: whole, lines } as unknown as TrayPatch)?.lines.map(
      ({ key, judgement }) => `${key}: ${judgement.word}`,
    );
  expect(words(false, patch.lines)).toEqual(['a: Not read', 'b: Good']);
  // A part that came out asks for a line that was not there, and one that is put away is gone.
  expect(words(true, [line('b', 'Good'), line('c', 'Not read')])).toEqual(['b: Good', 'c: Not read']);
});
