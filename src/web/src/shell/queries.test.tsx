import { QueryClient, QueryClientProvider, useQuery } from '@tanstack/react-query';
import { act, renderHook, waitFor } from '@testing-library/react';
import type { ReactNode } from 'react';
import { expect, it } from 'vitest';
import { keys } from '../api/keys';
import { useTakePatch } from './queries';

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
