import { Keyboard, LogOut, Menu, Plus, SlidersHorizontal } from 'lucide-react';
import { Suspense, useEffect, useRef, useState } from 'react';
import { Link, Outlet, useLocation, useNavigate } from 'react-router';
import { usePerson, useSession } from '../session/session';
import { Dialog } from '../ui/dialog';
import { Loading } from '../ui/states';
import { Outbox } from './Outbox';
import { Rail } from './Rail';

const shortcuts: readonly [keys: string, what: string][] = [
  ['/', 'Find a tray by its number, machine or owner'],
  ['Enter', 'On a gauge line: next box, then record and move on'],
  ['Esc', 'On a gauge line: drop what was typed'],
  ['B', 'Bench'],
  ['N', 'Check in a new tray'],
  ['[ and ]', 'On a tray: the station before, the station after'],
  ['0 … 9', 'On a station: straight into the first open box, for calipers that type'],
  ['?', 'This list'],
];

const typing = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName));

export function Shell() {
  const [help, setHelp] = useState(false);
  const [menu, setMenu] = useState(false);
  const find = useRef<HTMLInputElement>(null);
  const navigate = useNavigate();
  const location = useLocation();
  const person = usePerson();
  const session = useSession();

  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (event.ctrlKey || event.metaKey || event.altKey || typing(event.target)) return;
      const act: Record<string, () => void> = {
        '?': () => setHelp(true),
        '/': () => find.current?.focus(),
        b: () => void navigate('/'),
        n: () => void navigate('/check-in'),
      };
      const go = act[event.key];
      if (go) {
        event.preventDefault();
        go();
      }
    };
    document.addEventListener('keydown', onKey);
    return () => document.removeEventListener('keydown', onKey);
  }, [navigate]);

  const item = 'inline-flex min-h-11 items-center gap-2 rounded-lg px-3 font-[550] hover:bg-steel';
  return (
    <div className="grid min-h-dvh lg:grid-cols-[13rem_minmax(0,1fr)] print:block">
      <a href="#main" className="bg-sheet sr-only z-50 p-3 focus:not-sr-only focus:absolute">
        Skip to the work
      </a>
      <aside className="text-night-text sticky top-0 hidden h-dvh overflow-y-auto bg-[linear-gradient(180deg,var(--night),var(--night-2)_80%,#573a52_96%,#b04e38)] lg:block print:hidden">
        <Rail findRef={find} />
      </aside>
      <div className="flex min-w-0 flex-col">
        <div className="flex items-center gap-1 px-3 pt-2 lg:px-5 print:hidden">
          <button type="button" className={`${item} lg:hidden`} onClick={() => setMenu(true)}>
            <Menu aria-hidden size={20} /> Trays
          </button>
          <Link to="/" className={item} aria-current={location.pathname === '/' ? 'page' : undefined}>
            Bench
          </Link>
          <Link to="/check-in" className={item}>
            <Plus aria-hidden size={18} /> Check in
          </Link>
          <span className="ml-auto" />
          <Outbox />
          <button
            type="button"
            className={`${item} max-sm:hidden`}
            onClick={() => setHelp(true)}
            aria-label="Keyboard shortcuts"
          >
            <Keyboard aria-hidden size={20} />
          </button>
          <Link to="/my-bench" className={item} aria-label={`My bench: ${person.displayName}`}>
            <SlidersHorizontal aria-hidden size={18} />{' '}
            <span className="max-sm:hidden">{person.displayName.split(' ')[0]}</span>
          </Link>
          <button type="button" className={item} aria-label="Sign out" onClick={() => void session.signOut()}>
            <LogOut aria-hidden size={18} />
          </button>
        </div>
        <main id="main" tabIndex={-1} className="min-w-0 flex-1 outline-none">
          <Suspense fallback={<Loading what="the page" />}>
            <Outlet />
          </Suspense>
        </main>
      </div>
      <Dialog title="Trays" open={menu} onOpenChange={setMenu} drawer>
        <Rail onGo={() => setMenu(false)} />
      </Dialog>
      <Dialog title="Keyboard" open={help} onOpenChange={setHelp}>
        <dl className="grid grid-cols-[auto_1fr] gap-x-5 gap-y-2.5">
          {shortcuts.map(([keys, what]) => (
            <div key={keys} className="contents">
              <dt>
                <kbd className="num border-line-strong rounded border px-2 py-0.5">{keys}</kbd>
              </dt>
              <dd>{what}</dd>
            </div>
          ))}
        </dl>
      </Dialog>
    </div>
  );
}
