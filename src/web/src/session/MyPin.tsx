import { useState } from 'react';
import { api, ask } from '../api/client';
import { useWrite } from '../api/useWrite';
import { Button } from '../ui/button';
import { Card } from '../ui/card';
import { PasswordField } from '../ui/field';
import { Notice } from '../ui/states';
import { usePerson, useSession } from './session';

/** A short PIN for shared benches: set, changed, taken off. */
export function MyPin() {
  const person = usePerson();
  const { refresh } = useSession();
  const [password, setPassword] = useState('');
  const [pin, setPin] = useState('');
  const [saved, setSaved] = useState('');
  const change = useWrite(
    async (next: string) => {
      await ask(api.PUT('/api/me/pin', { body: { password, pin: next } }));
      await refresh();
      return next;
    },
    {
      done: (next) => {
        setPassword('');
        setPin('');
        setSaved(next ? 'Your PIN is set.' : 'Your PIN is off.');
      },
    },
  );
  const errors = change.problem?.errors ?? {};
  return (
    <Card label="My PIN" title="My PIN" pad="form" className="grid gap-3">
      <p className="text-mute">
        It opens on devices a lead trusts, beside your name. What needs a lead still needs the password.
      </p>
      <form
        className="grid items-start gap-3 sm:grid-cols-[1fr_1fr_auto]"
        onSubmit={(event) => {
          event.preventDefault();
          setSaved('');
          void change.run(pin);
        }}
      >
        <PasswordField
          label="Password"
          autoComplete="current-password"
          value={password}
          required
          problem={errors.password?.[0]}
          onChange={(event) => setPassword(event.target.value)}
        />
        <PasswordField
          label={person.hasPin ? 'New PIN' : 'PIN'}
          hint="4 to 8 digits."
          inputMode="numeric"
          autoComplete="off"
          maxLength={8}
          value={pin}
          required
          problem={errors.pin?.[0]}
          onChange={(event) => setPin(event.target.value.replace(/\D/g, ''))}
        />
        <span className="flex flex-wrap gap-2 sm:mt-7">
          <Button type="submit" disabled={change.busy}>
            Set it
          </Button>
          {person.hasPin && (
            <Button disabled={change.busy || password === ''} onClick={() => void change.run('')}>
              Take it off
            </Button>
          )}
        </span>
      </form>
      {change.problem && !errors.password && !errors.pin && (
        <Notice title={change.problem.title}>{change.problem.detail}</Notice>
      )}
      {saved && <Notice tone="ok" title={saved} />}
    </Card>
  );
}

/** Whoever came in by PIN gives the password here, to do what a lead may. */
export function ProveMyself() {
  const { refresh } = useSession();
  const [password, setPassword] = useState('');
  const prove = useWrite(async () => {
    await ask(api.POST('/api/me/proof', { body: { password } }));
    await refresh();
  });
  return (
    <Card label="Signed in by PIN" title="Signed in by PIN" pad="form" className="grid gap-3">
      <form
        className="grid items-start gap-3 sm:grid-cols-[1fr_auto]"
        onSubmit={(event) => {
          event.preventDefault();
          void prove.run();
        }}
      >
        <PasswordField
          label="Password, for what a lead may do"
          autoComplete="current-password"
          value={password}
          required
          problem={prove.problem?.errors.password?.[0] ?? prove.problem?.title}
          onChange={(event) => setPassword(event.target.value)}
        />
        <span className="sm:mt-7">
          <Button type="submit" look="hands" disabled={prove.busy}>
            Go on
          </Button>
        </span>
      </form>
    </Card>
  );
}
