import { Card } from '../../ui/card';
import { FileText } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import type { Obstacle, Problem, Tray } from '../../api/client';
import { focusLine } from '../../gauge/boxes';
import { useKept } from '../../outbox/drafts';
import { useAllowed, usePerson, useUnits } from '../../session/session';
import { RemarkList } from '../../tray/RemarkList';
import { remarksOf } from '../../tray/remarks';
import { isConflict, type TrayWrite } from '../../tray/useTrayWrite';
import { stationWord, trayPath } from '../../shell/stations';
import type { StationProps } from '../../tray/stationPage';
import { Button, LinkButton } from '../../ui/button';
import { PasswordField, TextField, TextArea } from '../../ui/field';
import { Notice } from '../../ui/states';
import { VerdictWord } from '../../ui/verdict';
import { moment, say } from '../../units/format';

/** The last station: what is still open, or everything in order; then it goes. */
export default function HandoverPage({ tray, writing }: StationProps) {
  const units = useUnits();
  const released = tray.facts.waitsFor === 'handedBack';
  const release =
    tray.logbook.find((entry) => entry.kind === 'release') ?? tray.logbook.find((entry) => entry.kind === 'words');
  // Each danger stands with its own reason, below.
  const open = tray.obstacles.filter((obstacle) => obstacle.kind !== 'danger');
  const remarks = remarksOf(tray);
  const report = (
    <LinkButton to={`${trayPath(tray.number)}/report`}>
      <FileText aria-hidden size={18} /> {released ? 'The report' : 'The report as it stands'}
    </LinkButton>
  );
  return (
    <Card label="Hand back" className="grid content-start gap-4">
      <header className="flex flex-wrap items-center justify-between gap-3">
        <h2 className="text-title">Hand back</h2>
        {report}
      </header>
      {open.length > 0 && !released && (
        <div>
          <h3 className="text-mute pb-1 text-note font-strong">Open: {open.length}</h3>
          <ul className="grid gap-x-6 md:grid-cols-2">
            {open.map((obstacle) => (
              <li key={obstacle.lineKey} className="border-line border-t">
                <OpenLine tray={tray} obstacle={obstacle} />
              </li>
            ))}
          </ul>
        </div>
      )}
      {remarks.length > 0 && (
        <div>
          <h3 className="text-mute pb-1 text-note font-strong">Notes that go with it</h3>
          <RemarkList tray={tray} remarks={remarks} />
        </div>
      )}
      {!released && tray.notDone.length > 0 && (
        <Notice tone="unsure" title="Not done">
          <ul className="ml-5 list-disc">
            {tray.notDone.map((left) => (
              <li key={left}>{left}</li>
            ))}
          </ul>
          It may go all the same; the report says so too.
        </Notice>
      )}
      {released ? (
        <Notice tone="ok" title={release ? say(release.what, units) : 'Handed back'}>
          {release && (
            <span className="block">
              {release.by}, {moment(release.takenAt)}
            </span>
          )}
          To work on it again, bring it back to the bench under “Handed back” at the top.
        </Notice>
      ) : (
        <Release tray={tray} writing={writing} />
      )}
      {tray.lines.some((line) => line.judgement.verdict === 'good') && (
        <div>
          <h3 className="text-mute pb-1 text-note font-strong">Good</h3>
          <ul className="grid gap-x-6 md:grid-cols-2">
            {tray.lines
              .filter((line) => line.judgement.verdict === 'good')
              .map((line) => (
                <li key={line.key} className="border-line flex justify-between gap-3 border-t py-1.5">
                  <span>
                    {line.label}
                    <span className="text-mute block text-note">{line.standing && say(line.standing.what, units)}</span>
                  </span>
                  <VerdictWord judgement={line.judgement} />
                </li>
              ))}
          </ul>
        </div>
      )}
    </Card>
  );
}

/** One line that is open; a touch leads to where it is put right. */
function OpenLine({ tray, obstacle }: { tray: Tray; obstacle: Obstacle }) {
  const line = tray.lines.find((l) => l.key === obstacle.lineKey);
  return (
    <Link
      to={trayPath(tray.number, obstacle.station)}
      onClick={() => focusLine(obstacle.lineKey)}
      className="hover:bg-paper flex min-h-12 items-center justify-between gap-3"
      aria-label={`Put ${obstacle.label} right at ${stationWord(obstacle.station)}`}
    >
      <span className="leading-tight">
        <span className="block font-strong">{obstacle.label}</span>
        <span className="text-mute block text-note">
          {stationWord(obstacle.station)}
          {!line && `: ${obstacle.word.toLowerCase()}`}
        </span>
      </span>
      {line && <VerdictWord judgement={line.judgement} />}
    </Link>
  );
}

function Release({ tray, writing }: { tray: Tray; writing: TrayWrite }) {
  const person = usePerson();
  const mayRelease = useAllowed('handBack');
  const [reason, keepReason, clearReason] = useKept(`${person.id}:${tray.number}:reason`, '');
  const [reasons, keepReasons, clearReasons] = useKept<Record<string, string>>(
    `${person.id}:${tray.number}:dangers`,
    {},
  );
  const [tagged, keepTagged, clearTagged] = useKept(`${person.id}:${tray.number}:tagged`, false);
  const [signer, setSigner] = useState(person.permissions.includes('sign') ? person.userName : '');
  const [password, setPassword] = useState('');
  const [problem, setProblem] = useState<Problem | null>(null);
  const [busy, setBusy] = useState(false);
  const open = tray.obstacles.length;
  const lines = tray.obstacles.filter((obstacle) => obstacle.kind !== 'danger').length;
  const floor = tray.dangers.some(({ danger }) => danger.isFloor);
  const release = async (): Promise<void> => {
    setBusy(true);
    const signed = open > 0 && reason.trim() !== '';
    const found = await writing.decide(
      {
        kind: 'release',
        reason: signed ? reason : null,
        dangers: signed
          ? tray.dangers.map(({ danger }) => ({ danger: danger.id, reason: reasons[danger.id] ?? '' }))
          : null,
        notToBeRun: signed && floor && tagged,
      },
      { waitsFor: 'handedBack' },
      signed ? { signature: { userName: signer, password } } : {},
    );
    if (found === null) [clearReason, clearReasons, clearTagged].forEach((clear) => clear());
    setBusy(false);
    setProblem(found && !isConflict(found) ? found : null);
  };
  const errors = problem?.errors ?? {};
  // Nobody can sign for fuel that runs out: it is mended, or it goes as it came.
  if (floor && tray.fitting?.option !== 'decline')
    return (
      <Notice title="It must not go like this.">
        <p className="max-w-prose">
          Nobody can sign for what stands above. Mend it, or decide at Kit not to repair it: then it goes back as it
          came, not to be filled or run.
        </p>
        <LinkButton look="quiet" className="px-0!" to={`${trayPath(tray.number)}/kit/decide`}>
          Decide at Kit
        </LinkButton>
      </Notice>
    );
  if (!mayRelease) return <Notice tone="unsure" title="A technician or the lead hands it back." />;
  return (
    <form
      className="grid gap-4"
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        void release();
      }}
    >
      {problem && Object.keys(errors).length === 0 && <Notice title={problem.title}>{problem.detail}</Notice>}
      {open > 0 && (
        <>
          <p className="max-w-prose">
            {lines > 0 &&
              `${lines === 1 ? 'One line is' : `${lines} lines are`} still open, so it stays on the bench. `}
            If it has to go as it is, the lead signs for the reason; reason and signature are printed on the report.
          </p>
          <div className="grid gap-4 md:grid-cols-2">
            {tray.dangers.map(({ danger }) => (
              <div key={danger.id} className="border-bad border-l-4 pl-3 md:col-span-2">
                <TextField
                  label={`${danger.label}: why it may go all the same`}
                  value={reasons[danger.id] ?? ''}
                  problem={errors[`note.dangers.${danger.id}`]?.[0]}
                  onChange={(e) => keepReasons({ ...reasons, [danger.id]: e.target.value })}
                />
              </div>
            ))}
            {floor && (
              <div className="md:col-span-2">
                <label className="flex min-h-12 items-center gap-3 font-strong">
                  <input
                    type="checkbox"
                    className="size-6"
                    checked={tagged}
                    onChange={(e) => keepTagged(e.target.checked)}
                  />
                  Not to be filled or run: the tag is on it
                </label>
                {errors['note.notToBeRun'] && <p className="text-bad">{errors['note.notToBeRun'][0]}</p>}
                <LinkButton to={`${trayPath(tray.number)}/label`}>Print the tag</LinkButton>
              </div>
            )}
            <div className="md:col-span-2">
              <TextArea
                label="Why it may go as it is"
                rows={2}
                value={reason}
                problem={errors['note.reason']?.[0]}
                onChange={(e) => keepReason(e.target.value)}
              />
            </div>
            <TextField
              label="Lead's sign-in name"
              value={signer}
              problem={errors['signature.userName']?.[0]}
              onChange={(e) => setSigner(e.target.value)}
            />
            <PasswordField
              label="Lead's password"
              value={password}
              problem={errors['signature.password']?.[0]}
              onChange={(e) => setPassword(e.target.value)}
            />
          </div>
        </>
      )}
      <div>
        <Button type="submit" look={open > 0 ? 'plain' : 'hands'} disabled={busy}>
          {open > 0 ? 'Sign and hand back' : 'Hand it back'}
        </Button>
      </div>
    </form>
  );
}
