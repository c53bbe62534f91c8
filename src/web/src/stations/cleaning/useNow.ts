import { useEffect, useState } from 'react';

/** The server's clock on this page: what it said last, carried on by the device's own. */
export function useNow(serverNow: string | undefined, everyMs = 1000): number {
  const [now, setNow] = useState(() => (serverNow ? Date.parse(serverNow) : Date.now()));
  useEffect(() => {
    const offset = serverNow ? Date.parse(serverNow) - Date.now() : 0;
    const tick = (): void => setNow(Date.now() + offset);
    tick();
    const timer = setInterval(tick, everyMs);
    return () => clearInterval(timer);
  }, [serverNow, everyMs]);
  return now;
}

/** Time left until a moment, as the bench says it: 12:05, or 3 h 20 min. */
export function countdown(untilMs: number, nowMs: number): string {
  const seconds = Math.max(0, Math.ceil((untilMs - nowMs) / 1000));
  const minutes = Math.floor(seconds / 60);
  if (minutes >= 90) return `${Math.floor(minutes / 60)} h ${minutes % 60} min`;
  return `${minutes}:${String(seconds % 60).padStart(2, '0')}`;
}
