import { useState } from 'react';
import { problemOf, type Problem, type Session } from '../api/client';
import { Button } from '../ui/button';
import { PasswordField, TextField } from '../ui/field';
import { Notice } from '../ui/states';
import { Door } from './Door';
import { PinDoor } from './PinDoor';
import { useSession } from './session';

export function SignInPage({ session: { demoAccounts, shopName, sharedBench, hands } }: { session: Session }) {
  const { signIn, signInByCode } = useSession();
  const [byCode, setByCode] = useState(false);
  const [byPassword, setByPassword] = useState(false);
  const [userName, setUserName] = useState('');
  const [code, setCode] = useState('');
  const [password, setPassword] = useState('');
  const [problem, setProblem] = useState<Problem | null>(null);
  const [busy, setBusy] = useState(false);
  if (sharedBench && hands.length > 0 && !byPassword)
    return (
      <Door>
        <PinDoor bench={sharedBench} hands={hands} byPassword={() => setByPassword(true)} />
      </Door>
    );
  return (
    <Door>
      <form
        className="grid gap-4 p-7 pt-5"
        onSubmit={(event) => {
          event.preventDefault();
          setBusy(true);
          setProblem(null);
          (byCode ? signInByCode(userName, code, password) : signIn(userName, password)).catch((error: unknown) => {
            setProblem(problemOf(error));
            setBusy(false);
          });
        }}
      >
        <div>
          <h1 className="text-number leading-tight font-heavy">Blue Dawn</h1>
          <p className="text-mute">
            {shopName || 'The bench book for carburetors'}.{' '}
            {byCode ? 'Set your password with the code a lead gave you.' : 'Sign in to see the trays.'}
          </p>
        </div>
        {problem && !problem.errors.password && <Notice title={problem.title}>{problem.detail}</Notice>}
        <TextField
          label="Name"
          value={userName}
          autoComplete="username"
          autoFocus
          required
          onChange={(e) => setUserName(e.target.value)}
        />
        {byCode && (
          <TextField
            label="Code"
            hint="Such as K7QM-3XHT-9WPD; it counts once and for a day."
            className="num"
            value={code}
            required
            onChange={(e) => setCode(e.target.value)}
          />
        )}
        <PasswordField
          key={byCode ? 'new' : 'now'}
          label={byCode ? 'New password' : 'Password'}
          hint={byCode ? 'At least 12 characters; a few words one after the other.' : undefined}
          problem={problem?.errors.password?.[0]}
          value={password}
          autoComplete={byCode ? 'new-password' : 'current-password'}
          required
          onChange={(e) => setPassword(e.target.value)}
        />
        <Button type="submit" look="hands" disabled={busy}>
          {byCode ? 'Set password and sign in' : 'Sign in'}
        </Button>
        <Button
          look="quiet"
          className="justify-self-start px-0!"
          onClick={() => {
            setByCode(!byCode);
            setProblem(null);
          }}
        >
          {byCode ? 'I have a password' : 'I have a code'}
        </Button>
        {sharedBench && hands.length > 0 && (
          <Button look="quiet" className="justify-self-start px-0!" onClick={() => setByPassword(false)}>
            By PIN
          </Button>
        )}
        {demoAccounts.length > 0 && (
          <p className="text-mute">
            Demo shop at Sandrigg Quay: {demoAccounts.join(', ')}, each with the password{' '}
            <span className="num text-ink">sandrigg-quay</span>.
          </p>
        )}
      </form>
    </Door>
  );
}
