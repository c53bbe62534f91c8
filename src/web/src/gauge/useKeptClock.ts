import { useEffect, useState } from 'react';
import { useKept } from '../outbox/drafts';

const stopped = { since: null as number | null };

export interface KeptClock {
  /** Seconds since it was started; null while it stands. */
  seconds: number | null;
  start: () => void;
  /** Seconds at the moment it is asked, for a press that is to be exact; null while it stands. */
  now: () => number | null;
  stop: () => void;
}

/** A clock that goes on through a reload: its start is kept on the device under a key. */
export function useKeptClock(key: string, everyMs: number): KeptClock {
  const [{ since }, keep, clear] = useKept(`${key}:clock`, stopped);
  const [shown, setShown] = useState(() => Date.now());
  useEffect(() => {
    if (since === null) return undefined;
    const timer = setInterval(() => setShown(Date.now()), everyMs);
    return () => clearInterval(timer);
  }, [since, everyMs]);
  return {
    seconds: since === null ? null : Math.max(0, (shown - since) / 1000),
    start: () => {
      setShown(Date.now());
      keep({ since: Date.now() });
    },
    now: () => (since === null ? null : (Date.now() - since) / 1000),
    stop: clear,
  };
}
