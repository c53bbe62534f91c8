import { Link } from 'react-router';
import type { Bench, BenchTray } from '../api/client';
import { CheckedInHere } from '../shell/CheckedInHere';
import { waitWord } from '../shell/words';
import { trayPath } from '../shell/stations';
import { LinkButton } from '../ui/button';
import { Card } from '../ui/card';
import { Tag } from '../ui/tag';
import { day, daysBetween } from '../units/format';

/** What the front desk needs: what is ready, whom to call, what is due; the trays for hands are not its work. */
export function DeskPage({ bench }: { bench: Bench }) {
  const { today } = bench;
  const open = bench.trays.filter((tray) => tray.waitsFor !== 'handedBack');
  const ready = open.filter((tray) => tray.ready);
  const owner = open.filter((tray) => tray.waitsFor === 'owner');
  const late = open.filter(
    (tray) => !tray.ready && tray.waitsFor !== 'owner' && daysBetween(today, tray.promisedDay) <= 0,
  );
  const parts = open.filter((tray) => tray.waitsFor === 'parts' && !late.includes(tray));
  return (
    <div className="grid gap-4 p-3 lg:px-5 lg:pb-5">
      <header className="flex flex-wrap items-end justify-between gap-3">
        <div>
          <h1 className="text-heading leading-tight">At the front desk</h1>
          <p className="text-mute">
            {ready.length} ready, {owner.length} to ask about, {late.length} due today or late. {open.length} in the
            shop.
          </p>
        </div>
        <LinkButton look="hands" to="/check-in">
          Check one in
        </LinkButton>
      </header>
      <CheckedInHere />
      <div className="grid items-start gap-4 lg:grid-cols-2">
        <Trays title="Ready: call the owner" trays={ready} today={today} none="Nothing is ready yet." />
        <Trays title="The owner has to say" trays={owner} today={today} none="Nobody has to be asked anything." />
        <Trays
          title="Due today or late: tell the owner"
          trays={late}
          today={today}
          none="Everything else is in time."
        />
        <Trays title="Waits for parts" trays={parts} today={today} none="Nothing waits for parts." />
      </div>
    </div>
  );
}

function Trays({ title, trays, today, none }: { title: string; trays: BenchTray[]; today: string; none: string }) {
  return (
    <Card label={title} title={title} pad="rows" className="block">
      {trays.length === 0 && <p className="text-mute py-3">{none}</p>}
      <ul>
        {trays.map((tray) => (
          <li key={tray.number} className="border-line border-t">
            <Link
              to={trayPath(tray.number, tray.ready ? 'handover' : 'intake')}
              className="hover:bg-paper grid min-h-14 grid-cols-[4rem_1fr_auto] items-center gap-3.5 py-2"
            >
              <Tag number={tray.number} />
              <span className="min-w-0 leading-snug">
                <span className="block font-bold">
                  {tray.ownerName}
                  {tray.ownerContact ? (
                    <span>, {tray.ownerContact}</span>
                  ) : (
                    <span className="text-unsure">, not said how to reach them</span>
                  )}
                </span>
                <span className="text-mute block">
                  {tray.machineName}
                  {tray.waitNote ? ` · ${tray.waitNote}` : ` · ${waitWord[tray.waitsFor].toLowerCase()}`}
                </span>
              </span>
              <span className="text-right font-bold">{day(tray.promisedDay, today)}</span>
            </Link>
          </li>
        ))}
      </ul>
    </Card>
  );
}
