import { useState } from 'react';
import { problemOf, type BenchHand, type Problem } from '../api/client';
import { Button } from '../ui/button';
import { PasswordField } from '../ui/field';
import { Notice } from '../ui/states';
import { useSession } from './session';

/** On a shared bench: one's name with a thumb, then the PIN. */
export function PinDoor({ bench, hands, byPassword }: { bench: string; hands: BenchHand[]; byPassword: () => void }) {
  const { signInByPin } = useSession();
  const [hand, setHand] = useState<BenchHand | null>(null);
  const [pin, setPin] = useState('');
  const [problem, setProblem] = useState<Problem | null>(null);
  const [busy, setBusy] = useState(false);
  return (
    <form
      className="grid gap-4 p-7 pt-5"
      onSubmit={(event) => {
        event.preventDefault();
        if (!hand) return;
        setBusy(true);
        setProblem(null);
        signInByPin(hand.userName, pin).catch((error: unknown) => {
          setProblem(problemOf(error));
          setPin('');
          setBusy(false);
        });
      }}
    >
      <div>
        <h1 className="text-number leading-tight font-heavy">Blue Dawn</h1>
        <p className="text-mute">{bench}. Whose hands?</p>
      </div>
      <div role="group" aria-label="Whose hands" className="grid grid-cols-2 gap-2">
        {hands.map((one) => (
          <Button
            key={one.userName}
            aria-pressed={hand?.userName === one.userName}
            className="aria-pressed:border-ink aria-pressed:bg-paper min-h-14 justify-start text-left aria-pressed:font-bold"
            onClick={() => {
              setHand(one);
              setPin('');
              setProblem(null);
            }}
          >
            <span className="num font-bold">{one.initials}</span> {one.displayName}
          </Button>
        ))}
      </div>
      {problem && <Notice title={problem.title}>{problem.detail}</Notice>}
      {hand && (
        <>
          <PasswordField
            key={hand.userName}
            label={`PIN of ${hand.displayName}`}
            inputMode="numeric"
            autoComplete="off"
            autoFocus
            maxLength={8}
            value={pin}
            required
            onChange={(event) => setPin(event.target.value.replace(/\D/g, ''))}
          />
          <Button type="submit" look="hands" disabled={busy || pin.length < 4}>
            Sign in
          </Button>
        </>
      )}
      <Button look="quiet" className="justify-self-start px-0!" onClick={byPassword}>
        By password
      </Button>
    </form>
  );
}
