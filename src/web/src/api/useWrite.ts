import { useMutation, useQueryClient, type QueryKey } from '@tanstack/react-query';
import { problemOf, type Problem } from './client';

export interface Write<A extends unknown[], R> {
  /** Writes. The answer, or null when it was not taken; then the problem says why. */
  run: (...args: A) => Promise<R | null>;
  busy: boolean;
  problem: Problem | null;
  clear: () => void;
}

/** Every write that is not an entry of a tray: one at a time, with its problem, and what hangs on it looks again. */
export function useWrite<A extends unknown[], R>(
  write: (...args: A) => Promise<R>,
  { changes = [], done }: { changes?: readonly QueryKey[]; done?: (answer: R) => void } = {},
): Write<A, R> {
  const queries = useQueryClient();
  const { mutateAsync, isPending, error, reset } = useMutation({
    mutationFn: (args: A) => write(...args),
    onSuccess: (answer) => {
      done?.(answer);
      for (const queryKey of changes) void queries.invalidateQueries({ queryKey });
    },
  });
  return {
    run: (...args) => mutateAsync(args).catch(() => null),
    busy: isPending,
    problem: error ? problemOf(error) : null,
    clear: reset,
  };
}
