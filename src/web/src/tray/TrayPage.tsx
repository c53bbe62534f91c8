import { useEffect } from 'react';
import { Link, Navigate, useNavigate, useParams } from 'react-router';
import type { Station, Tray } from '../api/client';
import { firstBox } from '../gauge/boxes';
import { GaugeSheet } from '../gauge/GaugeLine';
import { useAtTheBench } from '../session/session';
import { useTray } from '../shell/queries';
import { stationPath, stations, trayPath } from '../shell/words';
import { BuildSheet } from '../stations/build/BuildSheet';
import { CleaningSheet } from '../stations/cleaning/CleaningSheet';
import { FaultsSheet } from '../stations/faults/FaultsSheet';
import { HandoverSheet } from '../stations/handover/HandoverSheet';
import { IntakeSheet } from '../stations/intake/IntakeSheet';
import { KitsSheet } from '../stations/kits/KitsSheet';
import { StripSheet } from '../stations/strip/StripSheet';
import { Loading, Notice, Trouble } from '../ui/states';
import { BenchCard } from './BenchCard';
import { ConflictDialog } from './ConflictDialog';
import { StationStrip } from './StationStrip';
import { TrayHeader } from './TrayHeader';
import { useTrayWrite, type TrayWrite } from './useTrayWrite';

export function TrayPage() {
  const params = useParams();
  const number = Number(params.number);
  const query = useTray(number);
  if (query.isPending) return <Loading what={`tray ${number}`} />;
  // A tray that was on the page stays on it while the server is away.
  if (!query.data) return <Trouble error={query.error} retry={() => void query.refetch()} />;
  const station = stations.find((s) => stationPath[s] === params.station);
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
      <OpenTray key={number} tray={query.data} station={station} />
    </>
  );
}

function OpenTray({ tray, station }: { tray: Tray; station: Station }) {
  const { conflict, dismiss, problem, ...writing } = useTrayWrite(tray);
  useStationKeys(tray.number);
  useEffect(() => {
    document.title = `Tray ${tray.number}, ${tray.facts.machineName}`;
    return () => {
      document.title = 'Blue Dawn';
    };
  }, [tray.number, tray.facts.machineName]);
  return (
    <div className="grid gap-2.5 p-3 lg:px-4 lg:pb-5">
      <TrayHeader tray={tray} onChange={writing.change} problem={problem ? `${problem.title} ${problem.detail}` : ''} />
      <StationStrip tray={tray.number} stations={tray.stations} />
      {station === 'build' ? (
        // The stack is built from at arm's length: it takes the whole bench.
        <BuildSheet tray={tray} />
      ) : (
        <div className="grid gap-3 lg:grid-cols-[minmax(0,1fr)_20.5rem]">
          <Sheet tray={tray} station={station} writing={writing} />
          <BenchCard tray={tray} tracing={station === 'faults'} drawn={station !== 'cleaning'} />
        </div>
      )}
      {conflict && <ConflictDialog tray={tray} conflict={conflict} onDismiss={dismiss} />}
    </div>
  );
}

interface SheetProps {
  tray: Tray;
  station: Station;
  writing: TrayWrite;
}

const titles: Partial<Record<Station, string>> = {
  gauging: 'Gauge jets and emulsion tube',
  setting: 'Set float, needle and seat',
  proving: 'Prove it on the bench',
};

function Sheet({ tray, station, writing }: SheetProps) {
  if (station === 'intake') return <IntakeSheet tray={tray} onChange={writing.change} />;
  if (station === 'faults') return <FaultsSheet tray={tray} />;
  if (station === 'kits') return <KitsSheet tray={tray} writing={writing} />;
  if (station === 'strip') return <StripSheet tray={tray} />;
  if (station === 'cleaning') return <CleaningSheet tray={tray} />;
  if (station === 'handover') return <HandoverSheet tray={tray} writing={writing} />;
  return <Gauges tray={tray} station={station} />;
}

function Gauges({ tray, station }: Omit<SheetProps, 'writing'>) {
  const mayRecord = useAtTheBench();
  const lines = tray.lines.filter((line) => line.station === station);
  const notYet = station === 'proving' ? tray.whyNotProven : null;
  const locked = tray.facts.waitsFor === 'handedBack' || notYet !== null;
  if (lines.length === 0) {
    return (
      <section className="bg-sheet border-line rounded-xl border p-6">
        <h2 className="text-[1.25rem]">{titles[station]}</h2>
        <p className="mt-1">
          {tray.spec
            ? `Sheet ${tray.spec.code} asks for nothing to be read here.`
            : 'Nothing can be judged before the spec sheet is known. Find it at Kit by the stamped number.'}
        </p>
      </section>
    );
  }
  const sheet = (
    <GaugeSheet
      tray={tray.number}
      lines={lines}
      logbook={tray.logbook}
      locked={locked}
      title={titles[station] ?? ''}
      cautionOnCard={tray.next.caution?.key}
      note={
        notYet !== null
          ? 'Not to be proven yet'
          : locked
            ? 'Handed back: bring it back to the bench to read again'
            : !mayRecord
              ? 'A technician records here; you are reading along'
              : `Sheet ${tray.spec?.code ?? ''}, issue ${tray.spec?.issue ?? ''} · Enter records and moves on`
      }
    />
  );
  return notYet === null ? (
    sheet
  ) : (
    <div className="grid content-start gap-3">
      <Notice title="Not to be proven yet.">
        <p>{notYet}</p>
        <Link
          className="mt-1 inline-flex min-h-11 items-center font-[650] underline underline-offset-4"
          to={trayPath(tray.number, 'build')}
        >
          Go to build
        </Link>
      </Notice>
      {sheet}
    </div>
  );
}

const fields = 'INPUT TEXTAREA SELECT'.split(' ');

/** [ and ] change the station; a digit typed with no box in hand goes into the first open one. */
function useStationKeys(number: number): void {
  const navigate = useNavigate();
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (event.ctrlKey || event.metaKey || event.altKey) return;
      if (event.target instanceof HTMLElement && fields.includes(event.target.tagName)) return;
      if (document.querySelector('[role="dialog"], [role="menu"]')) return;
      // By the address, not by what was drawn last: two presses in a row are two stations.
      const here = window.location.pathname.split('/')[3];
      const at = stations.findIndex((s) => stationPath[s] === here);
      const to = event.key === ']' ? stations[at + 1] : event.key === '[' ? stations[at - 1] : undefined;
      if (to) {
        void navigate(trayPath(number, to));
      } else if (/^[\d.#]$/.test(event.key)) {
        const open =
          document.querySelector<HTMLElement>('[data-line][data-open="true"]') ??
          document.querySelector<HTMLElement>('[data-line]');
        if (open) firstBox(open)?.focus();
      }
    };
    document.addEventListener('keydown', onKey);
    return () => document.removeEventListener('keydown', onKey);
  }, [navigate, number]);
}
