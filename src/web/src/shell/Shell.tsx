import { Keyboard, LogOut, Menu, SlidersHorizontal } from 'lucide-react';
import { Suspense, useRef, useState } from 'react';
import { Link, NavLink, Outlet, useLocation, useNavigate } from 'react-router';
import { usePerson, useSession } from '../session/session';
import { Dialog } from '../ui/dialog';
import { Loading } from '../ui/states';
import { Whole } from '../ui/Whole';
import { BathCalls } from './BathCalls';
import { hotkeys, useHotkeys } from './hotkeys';
import { useLive } from './live';
import { UpToDate } from './UpToDate';
import { useKeepAtHand } from './useKeepAtHand';
import { NewVersion } from './NewVersion';
import { Outbox } from './Outbox';
import { Rail } from './Rail';
import { ServerAway } from './ServerAway';

const item = 'inline-flex min-h-11 items-center gap-1.5 rounded-lg px-1.75 font-medium hover:bg-white/10';

export function Shell() {
  const [help, setHelp] = useState(false);
  const [menu, setMenu] = useState(false);
  const find = useRef<HTMLInputElement>(null);
  const navigate = useNavigate();
  const { pathname } = useLocation();
  const person = usePerson();
  const session = useSession();
  useLive(person.id);
  useKeepAtHand(person.id);

  useHotkeys({
    help: () => setHelp(true),
    find: () => find.current?.focus(),
    bench: () => void navigate('/'),
    checkIn: () => void navigate('/check-in'),
    stock: () => void navigate('/stock'),
    baths: () => void navigate('/baths'),
  });

  const me = (
    <>
      <Link to="/my-bench" className={item} aria-label={`My bench: ${person.displayName}`}>
        <SlidersHorizontal aria-hidden size={18} />
        <span className="max-sm:hidden">{person.displayName.split(' ')[0]}</span>
      </Link>
      <button
        type="button"
        className={`${item} ml-auto max-sm:hidden`}
        onClick={() => setHelp(true)}
        aria-label="Keyboard shortcuts"
      >
        <Keyboard aria-hidden size={20} />
      </button>
      <button type="button" className={item} aria-label="Sign out" onClick={() => void session.signOut()}>
        <LogOut aria-hidden size={18} />
      </button>
    </>
  );
  const ways = (
    <>
      <NavLink to="/" end className={`${item} aria-[current=page]:bg-white/15`}>
        Bench
      </NavLink>
      <NavLink to="/check-in" className={`${item} aria-[current=page]:bg-white/15`}>
        Check in
      </NavLink>
      <NavLink to="/stock" className={`${item} aria-[current=page]:bg-white/15`}>
        Stock
      </NavLink>
    </>
  );
  return (
    <div className="grid min-h-dvh content-start lg:grid-cols-[13rem_minmax(0,1fr)] lg:content-stretch print:block">
      <a href="#main" className="bg-sheet sr-only z-50 p-3 focus:not-sr-only focus:absolute">
        Skip to the work
      </a>
      <aside className="text-night-text sticky top-0 hidden h-dvh flex-col bg-[linear-gradient(180deg,var(--night),var(--night-2)_80%,#573a52_96%,#b04e38)] lg:flex print:hidden">
        <div className="flex items-center justify-between pt-1 pr-1.5">
          <Link to="/" className="px-4 text-title font-heavy text-white">
            Blue Dawn
          </Link>
          <NavLink to="/baths" className={`${item} aria-[current=page]:bg-white/15`}>
            Baths
          </NavLink>
        </div>
        <div className="flex px-1.5 pb-1">{ways}</div>
        <Rail findRef={find} />
        <UpToDate />
        <div className="flex px-1.5 py-1">{me}</div>
      </aside>
      <div className="flex min-w-0 flex-col">
        <div className="bg-night text-night-text flex flex-wrap items-center px-2 lg:hidden print:hidden">
          <button type="button" className={item} onClick={() => setMenu(true)}>
            <Menu aria-hidden size={20} /> Trays
          </button>
          {ways}
          <NavLink to="/baths" className={`${item} aria-[current=page]:bg-white/15`}>
            Baths
          </NavLink>
          <span className="ml-auto" />
          {me}
        </div>
        <NewVersion />
        <ServerAway />
        <Outbox />
        <BathCalls />
        <main id="main" tabIndex={-1} className="min-w-0 flex-1 outline-none">
          <Suspense fallback={<Loading what="the page" />}>
            <Whole at={pathname}>
              <Outlet />
            </Whole>
          </Suspense>
        </main>
      </div>
      <Dialog title="Trays" open={menu} onOpenChange={setMenu} drawer>
        <div className="pt-4">
          <UpToDate />
          <Rail onGo={() => setMenu(false)} />
        </div>
      </Dialog>
      <Dialog title="Keyboard" open={help} onOpenChange={setHelp}>
        <dl className="grid grid-cols-[auto_1fr] gap-x-5 gap-y-2.5">
          {Object.values(hotkeys).map(({ label, what }) => (
            <div key={label} className="contents">
              <dt>
                <kbd className="num border-line-strong rounded border px-2 py-0.5">{label}</kbd>
              </dt>
              <dd>{what}</dd>
            </div>
          ))}
        </dl>
      </Dialog>
    </div>
  );
}
