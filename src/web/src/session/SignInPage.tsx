import { useState } from 'react';
import { problemOf } from '../api/client';
import { Button } from '../ui/button';
import { TextField } from '../ui/field';
import { Notice } from '../ui/states';
import { RuleTicks } from '../ui/rule';
import { useSession } from './session';

export function SignInPage({ demoAccounts }: { demoAccounts: string[] }) {
  const { signIn } = useSession();
  const [userName, setUserName] = useState('');
  const [password, setPassword] = useState('');
  const [problem, setProblem] = useState<{ title: string; detail: string } | null>(null);
  const [busy, setBusy] = useState(false);
  return (
    <main className="grid min-h-dvh place-items-center bg-[linear-gradient(180deg,var(--night),var(--night-2)_62%,#573a52_86%,#b04e38)] p-4">
      <div className="bg-sheet w-full max-w-md overflow-hidden rounded-xl">
        <div className="relative h-5 bg-[linear-gradient(var(--steel),var(--steel-2))]">
          <RuleTicks every={10} of={80} height={14} />
        </div>
        <form
          className="grid gap-4 p-7 pt-5"
          onSubmit={(event) => {
            event.preventDefault();
            setBusy(true);
            setProblem(null);
            signIn(userName, password).catch((error: unknown) => {
              setProblem(problemOf(error));
              setBusy(false);
            });
          }}
        >
          <div>
            <h1 className="text-number leading-tight font-heavy">Blue Dawn</h1>
            <p className="text-mute">The bench book for carburetors. Sign in to see the trays.</p>
          </div>
          {problem && <Notice title={problem.title}>{problem.detail}</Notice>}
          <TextField
            label="Name"
            value={userName}
            autoComplete="username"
            autoFocus
            required
            onChange={(e) => setUserName(e.target.value)}
          />
          <TextField
            label="Password"
            type="password"
            value={password}
            autoComplete="current-password"
            required
            onChange={(e) => setPassword(e.target.value)}
          />
          <Button type="submit" look="hands" disabled={busy}>
            Sign in
          </Button>
          {demoAccounts.length > 0 && (
            <p className="text-mute">
              Demo shop at Sandrigg Quay: {demoAccounts.join(', ')}, each with the password{' '}
              <span className="num text-ink">sandrigg-quay</span>.
            </p>
          )}
        </form>
      </div>
    </main>
  );
}
