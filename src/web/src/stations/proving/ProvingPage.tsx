import { LinesPage } from '../../gauge/LinesPage';
import type { SafetyCondition, TraceNote, Tray, TrialNote } from '../../api/client';
import { useLedger } from '../../shell/queries';
import { ScrewCard } from '../../parts/ScrewCard';
import { useRecord } from '../../shell/useRecord';
import { useKept } from '../../outbox/drafts';
import { useOff, usePerson } from '../../session/session';
import { Button, LinkButton, OffBecause } from '../../ui/button';
import { TextField } from '../../ui/field';
import { Notice } from '../../ui/states';
import { trayPath } from '../../shell/stations';
import type { StationProps } from '../../tray/stationPage';

/** Fuel on and rocked, the complaint tried again, then idle and governed speed; not while a part lies on the bench. */
export default function ProvingPage({ tray }: StationProps) {
  const notYet = tray.whyNotProven;
  const ledger = useLedger(tray.number);
  const oil = useRecord<TraceNote>(tray.number);
  const mayRecord = useOff(tray) === undefined;
  const say = (condition: SafetyCondition): void => void oil.record({ kind: 'safety', condition });
  return (
    <div className="grid content-start gap-3">
      {notYet !== null && (
        <Notice title="Not to be proven yet.">
          <p>{notYet}</p>
          {mayRecord && <TryAsItIs tray={tray} />}
          <LinkButton look="quiet" className="px-0!" to={trayPath(tray.number, 'build')}>
            Go to build
          </LinkButton>
        </Notice>
      )}
      {tray.triedWithout.length > 0 && (
        <Notice tone="unsure" title={`A trial, without ${tray.triedWithout.join(', ')}.`}>
          <p>A leak, a start and a fault count. What reads good is read once more when all is on.</p>
        </Notice>
      )}
      {tray.whyNotRun !== null && (tray.runAfter !== null || tray.dangers.length === 0) && (
        <Notice title="This engine must not run yet.">
          {tray.dangers.length === 0 && <p>{tray.whyNotRun}</p>}
          {mayRecord && tray.runAfter === 'oilChanged' && (
            <Button className="mt-2" disabled={oil.busy} onClick={() => say('oilChanged')}>
              Oil is changed
            </Button>
          )}
          {mayRecord && tray.runAfter === 'oilRead' && (
            <div className="mt-2 flex flex-wrap gap-2">
              <Button disabled={oil.busy} onClick={() => say('oilRead')}>
                At its mark, smells of oil
              </Button>
              <Button
                disabled={oil.busy}
                onClick={() =>
                  void oil.record({
                    kind: 'findings',
                    checkId: 'oil-check',
                    answers: [{ findingId: 'fuel-in-oil', said: 'present', doubtful: false }],
                    fromOwner: false,
                  })
                }
              >
                Over full or smells of fuel
              </Button>
            </div>
          )}
        </Notice>
      )}
      <OffBecause why={notYet}>
        <LinesPage
          tray={tray}
          station="proving"
          title="Prove it on the bench"
          {...(notYet === null ? {} : { locked: 'Not to be proven yet' })}
        />
      </OffBecause>
      {ledger.data && <ScrewCard tray={tray} screws={ledger.data.screws} most={ledger.data.mostEighths} />}
    </div>
  );
}

/** So on this machine, because: it is tried as it stands. What would be dangerous is refused with its reason. */
function TryAsItIs({ tray }: { tray: Tray }) {
  const trial = useRecord<TrialNote>(tray.number);
  const [because, setBecause, dropBecause] = useKept(`${usePerson().id}:trial:${tray.number}`, '');
  return (
    <form
      aria-label="Try it as it stands"
      className="mt-2 flex flex-wrap items-end gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        void trial.record({ kind: 'trial', because }).then((settled) => {
          if (settled) dropBecause();
        });
      }}
    >
      <TextField
        label="Try it as it stands, because"
        className="min-w-0 flex-1 basis-72"
        value={because}
        problem={trial.problem?.errors['note.because']?.[0]}
        onChange={(event) => setBecause(event.target.value)}
      />
      <Button type="submit" disabled={trial.busy}>
        Try it
      </Button>
    </form>
  );
}
