import { useQueryClient } from '@tanstack/react-query';
import { Suspense, useEffect, useState, useSyncExternalStore } from 'react';
import { Navigate, useNavigate, useParams } from 'react-router';
import { seen, type Station, type Tray } from '../api/client';
import { core } from '../core/core';
import { firstBox } from '../gauge/boxes';
import { outbox } from '../outbox/outbox';
import { useOff, usePerson } from '../session/session';
import { useHotkeys } from '../session/hotkeys';
import { keys } from '../api/keys';
import { useTray } from '../shell/queries';
import { useTitle } from '../shell/title';
import { stationAt, stations, trayPath } from '../shell/stations';
import { OffReason } from '../ui/button';
import { Loading, Notice, Trouble } from '../ui/states';
import { BenchCard } from './BenchCard';
import { ConflictDialog } from './ConflictDialog';
import { DangerList } from './DangerList';
import { JustCheckedIn } from './JustCheckedIn';
import { OldRules } from './OldRules';
import { RemarkDialog } from './RemarkDialog';
import type { StationPage } from './stationPage';
import { StationStrip } from './StationStrip';
import { TrayHeader } from './TrayHeader';
import { useTrayWrite } from './useTrayWrite';

const CORE_AFTER_MS = 8_000;
const LOOK_MS = 1_000;

/** A tray with one of its stations open. */
export function TrayPage({ pages }: { pages: Record<Station, StationPage> }) {
  const params = useParams();
  const number = Number(params.number);
  const query = useTray(number);
  if (query.isPending) return <Loading what={`tray ${number}`} />;
  // A tray that was on the page stays on it while the server is away.
  if (!query.data) return <Trouble error={query.error} retry={() => void query.refetch()} />;
  const station = stationAt(params.station);
  if (!station) return <Navigate to={trayPath(number, query.data.next.station)} replace />;
  return (
    <>
      {query.isError && (
        <div className="px-5 pt-2">
          <Notice tone="unsure" title="The server does not answer.">
            This is the tray as it was last seen. Readings you enter are kept on this device and sent later.
          </Notice>
        </div>
      )}
      <OpenTray key={number} tray={query.data} station={station} shown={pages[station]} />
    </>
  );
}

function OpenTray({ tray, station, shown }: { tray: Tray; station: Station; shown: StationPage }) {
  const { conflict, dismiss, problem, ...writing } = useTrayWrite(tray);
  const { Page, wide, drawn } = shown;
  const [noting, setNoting] = useState(false);
  // A tray that was handed back takes no more notes.
  const note = tray.facts.waitsFor === 'handedBack' ? null : () => setNoting(true);
  useStationKeys(tray.number, () => note?.());
  useCore(
    tray,
    tray.lines.some((line) => line.station === station),
  );
  useTitle(`Tray ${tray.number}, ${tray.facts.machineName}`);
  const why = useOff(tray);
  // Whoever takes machines in keeps what was written at Check in, and the report of what went back is read there.
  const off = station === 'intake' || station === 'handover' ? undefined : why;
  const page = (
    <Suspense fallback={<Loading what="the station" />}>
      <Page tray={tray} writing={writing} />
    </Suspense>
  );
  return (
    <OffReason value={off}>
      <div className="grid gap-2.5 p-3 lg:px-4 lg:pb-5">
        <TrayHeader
          tray={tray}
          onChange={writing.change}
          onNote={note}
          problem={problem ? `${problem.title} ${problem.detail}` : ''}
        />
        <JustCheckedIn tray={tray} />
        <OldRules tray={tray} />
        <StationStrip tray={tray.number} views={tray.stations} station={station} />
        <DangerList tray={tray} station={station} />
        {off !== undefined && <p className="bg-steel-2 rounded-lg px-4 py-2 font-strong">{off}</p>}
        {wide ? (
          page
        ) : (
          <div className="grid gap-3 lg:grid-cols-[minmax(0,1fr)_20.5rem]">
            {page}
            <BenchCard tray={tray} station={station} drawn={!drawn} />
          </div>
        )}
        {noting && <RemarkDialog tray={tray} station={station} onClose={() => setNoting(false)} />}
        {conflict && <ConflictDialog tray={tray} conflict={conflict} onDismiss={dismiss} />}
      </div>
    </OffReason>
  );
}

/**
 * Starts Core while the hands are busy at a station where something is read, at once when the server is away, and gives
 * it the tray as it stands: what is typed is judged on this device. Elsewhere the server's word is enough.
 */
function useCore({ number, revision, version }: Tray, reads: boolean): void {
  const by = usePerson().displayName;
  const queries = useQueryClient();
  const away = useSyncExternalStore(seen.subscribe, seen.since) !== null;
  const wanted = away || reads;
  useEffect(() => {
    if (!wanted) return undefined;
    const start = setTimeout(() => core.start(), away ? 0 : CORE_AFTER_MS);
    return () => clearTimeout(start);
  }, [away, wanted]);
  useEffect(() => {
    if (!wanted) return undefined;
    // What the device kept of the server's answers gives way to what Core makes of it.
    const folded = (there: boolean): void => {
      if (there && seen.since() !== null) void queries.invalidateQueries({ queryKey: keys.ofTray(number) });
    };
    let looking: ReturnType<typeof setTimeout> | undefined;
    const take = (): void => {
      if (core.isReady()) void core.take(number, outbox.current, by).then(folded, () => undefined);
      else looking = setTimeout(take, LOOK_MS);
    };
    take();
    return () => clearTimeout(looking);
  }, [wanted, number, revision, version, by, queries]);
}

/** To the station before and after; a digit typed with no box in hand goes into the first open one. */
function useStationKeys(number: number, note: () => void): void {
  const navigate = useNavigate();
  const go = (by: number): void => {
    // By the address, not by what was drawn last: two presses in a row are two stations.
    const here = stationAt(window.location.pathname.split('/')[3]);
    const to = here && stations[stations.indexOf(here) + by];
    if (to) {
      void navigate(trayPath(number, to));
      // What was in the hand belongs to the station that is left.
      document.querySelector<HTMLElement>('#main h1')?.focus();
    }
  };
  useHotkeys({
    before: () => go(-1),
    after: () => go(1),
    note,
    type: () => {
      const open =
        document.querySelector<HTMLElement>('[data-line][data-open="true"]') ??
        document.querySelector<HTMLElement>('[data-line]');
      if (open) firstBox(open)?.focus();
    },
  });
}
