import { Keyboard, LogOut, Menu, SlidersHorizontal } from 'lucide-react';
import { Suspense, useRef, useState, type ReactNode } from 'react';
import { Link, NavLink, Outlet, useLocation, useNavigate } from 'react-router';
import type { Permission } from '../api/client';
import { usePerson, useSession } from '../session/session';
import { Dialog } from '../ui/dialog';
import { Loading } from '../ui/states';
import { Whole } from '../ui/Whole';
import { Announcer } from '../ui/announce';
import { FindBox } from './FindBox';
import { hotkeys, useHotkeys } from '../session/hotkeys';
import { useLive } from './live';
import { UpToDate } from './UpToDate';
import { useKeepAtHand } from './useKeepAtHand';
import { NewVersion } from './NewVersion';
import { Outbox } from './Outbox';
import { Rail } from './Rail';
import { ServerAway } from './ServerAway';

const item = 'inline-flex min-h-11 items-center gap-1.5 rounded-lg px-1.75 font-medium hover:bg-white/10';

/** Every page of the shop besides bench and check-in, and what somebody has to be allowed to do for it. */
const pages: readonly { to: string; word: string; needs?: Permission }[] = [
  { to: '/stock', word: 'Stock' },
  { to: '/baths', word: 'Baths' },
  { to: '/owners', word: 'Owners' },
  { to: '/sheets', word: 'Sheets' },
  { to: '/rules', word: 'Rules' },
  { to: '/knowledge', word: 'Knowledge' },
  { to: '/people', word: 'People', needs: 'managePeople' },
];

/** What stands around every page. */
export function Shell({ calls }: { calls: ReactNode }) {
  const [help, setHelp] = useState(false);
  const [menu, setMenu] = useState<'shut' | 'open' | 'find'>('shut');
  const find = useRef<HTMLInputElement>(null);
  const navigate = useNavigate();
  const { pathname } = useLocation();
  const person = usePerson();
  const session = useSession();
  const shopName = session.query.data?.shopName ?? '';
  useLive(person.id);
  useKeepAtHand(person.id);

  useHotkeys({
    help: () => setHelp(true),
    // On a narrow screen the box is behind the first button.
    find: () => {
      if (!find.current || find.current.offsetParent === null) setMenu('find');
      else find.current.select();
    },
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
  const here = `${item} aria-[current=page]:bg-white/15`;
  const bench = (
    <>
      <NavLink to="/" end className={here}>
        Bench
      </NavLink>
      <NavLink to="/check-in" className={here}>
        Check in
      </NavLink>
    </>
  );
  const allowed = pages.filter((page) => !page.needs || person.permissions.includes(page.needs));
  const mine = [
    { to: '/', word: 'Bench' },
    { to: '/check-in', word: 'Check in' },
    ...allowed,
    { to: '/my-bench', word: 'My bench' },
  ];
  const others = (onGo?: () => void) =>
    allowed.map((page) => (
      <NavLink key={page.to} to={page.to} className={here} onClick={onGo}>
        {page.word}
      </NavLink>
    ));
  return (
    <div className="grid min-h-dvh content-start lg:grid-cols-[13rem_minmax(0,1fr)] lg:content-stretch print:block">
      <a href="#main" className="bg-sheet sr-only z-50 p-3 focus:not-sr-only focus:absolute">
        Skip to the work
      </a>
      <aside
        className={`text-night-text sticky top-0 hidden h-dvh flex-col
        bg-[linear-gradient(180deg,var(--night),var(--night-2)_80%,#573a52_96%,#b04e38)] lg:flex print:hidden`}
      >
        <Link to="/" className="px-4 pt-2.5 pb-1 leading-tight">
          <span className="block text-title font-heavy text-white">Blue Dawn</span>
          {shopName && <span className="text-night-mute block truncate text-note">{shopName}</span>}
        </Link>
        <nav aria-label="Pages" className="grid grid-cols-2 px-2 pb-1">
          {bench}
          {others()}
        </nav>
        {/* Below the trays for the eye, before them for the keys: the way out is not behind sixty trays. */}
        <div className="order-last">
          <UpToDate />
          <div className="flex px-1.5 py-1">{me}</div>
        </div>
        <FindBox pages={mine} boxRef={find} />
        <Rail />
      </aside>
      <div className="flex min-w-0 flex-col">
        <nav aria-label="Pages" className="bg-night text-night-text flex items-center px-2 lg:hidden print:hidden">
          <button type="button" className={item} onClick={() => setMenu('open')}>
            <Menu aria-hidden size={20} /> Trays, more
          </button>
          {bench}
          <span className="ml-auto" />
          {me}
        </nav>
        <NewVersion />
        <ServerAway />
        <Outbox />
        {calls}
        <main id="main" data-path={pathname} tabIndex={-1} className="min-w-0 flex-1 outline-none">
          <Suspense fallback={<Loading what="the page" />}>
            <Whole at={pathname}>
              <Outlet />
            </Whole>
          </Suspense>
        </main>
      </div>
      <Announcer />
      <Dialog title="Trays" open={menu !== 'shut'} onOpenChange={(open) => setMenu(open ? 'open' : 'shut')} drawer>
        <div className="pt-4">
          <nav aria-label="More pages" className="grid grid-cols-2 gap-x-2 px-2">
            {others(() => setMenu('shut'))}
          </nav>
          <UpToDate />
          <FindBox pages={mine} first={menu === 'find'} onGo={() => setMenu('shut')} />
          <Rail onGo={() => setMenu('shut')} />
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
