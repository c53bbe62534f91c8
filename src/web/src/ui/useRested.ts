import { useEffect, useState } from 'react';

/** What is being typed, once the hand has rested for a while: half of a word or a number is not taken for the whole. */
export function useRested<T extends string>(typed: T, restMs: number): T {
  const [rested, setRested] = useState(typed);
  useEffect(() => {
    const timer = setTimeout(() => setRested(typed), restMs);
    return () => clearTimeout(timer);
  }, [typed, restMs]);
  return rested;
}
