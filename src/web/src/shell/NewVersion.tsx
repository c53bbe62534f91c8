import { useEffect, useState } from 'react';
import { Button } from '../ui/button';

/** Right after a first start the worker is not there yet; the page does without it meanwhile. */
const AGAIN_MS = 30_000;
const LOOK_MS = 30 * 60_000;

/** The old version finishes what it has in hand before it goes; a page that asks anew leaves it nothing to finish. */
const LONGEST_WAIT_MS = 5_000;

/** A newer version says that it is there. It takes the old one's place when a person asks for it, never under typing. */
export function NewVersion() {
  const [load, setLoad] = useState<(() => void) | null>(null);
  const [loading, setLoading] = useState(false);
  useEffect(() => {
    if (!('serviceWorker' in navigator) || import.meta.env.DEV) return undefined;
    let timer: ReturnType<typeof setInterval> | undefined;
    let again: ReturnType<typeof setTimeout> | undefined;
    void import('workbox-window').then(({ Workbox }) => {
      const worker = new Workbox('/sw.js');
      worker.addEventListener('waiting', () => {
        setLoad(() => () => {
          setLoading(true);
          worker.addEventListener('controlling', () => window.location.reload());
          worker.messageSkipWaiting();
          setTimeout(() => window.location.reload(), LONGEST_WAIT_MS);
        });
      });
      const register = (): void =>
        void worker.register().catch(() => {
          again = setTimeout(register, AGAIN_MS);
        });
      register();
      timer = setInterval(() => void worker.update().catch(() => undefined), LOOK_MS);
    });
    return () => {
      clearTimeout(again);
      clearInterval(timer);
    };
  }, []);
  if (!load) return null;
  return (
    <p role="status" className="bg-ok-soft flex flex-wrap items-center gap-x-4 gap-y-1 px-4 py-1.5 print:hidden">
      <span className="font-strong">A newer version of Blue Dawn is here.</span>
      <Button onClick={load} disabled={loading}>
        {loading ? 'Loading it …' : 'Load it'}
      </Button>
      <span className="text-mute">What you typed stays.</span>
    </p>
  );
}
