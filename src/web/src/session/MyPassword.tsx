import { useState } from 'react';
import { api, ask } from '../api/client';
import { useWrite } from '../api/useWrite';
import { Button } from '../ui/button';
import { Card } from '../ui/card';
import { PasswordField } from '../ui/field';
import { Notice } from '../ui/states';

/** One's own password, changed; the other devices are signed out. */
export function MyPassword() {
  const [now, setNow] = useState('');
  const [next, setNext] = useState('');
  const [saved, setSaved] = useState(false);
  const change = useWrite(
    async () => {
      await ask(api.PUT('/api/me/password', { body: { now, next } }));
    },
    {
      done: () => {
        setNow('');
        setNext('');
        setSaved(true);
      },
    },
  );
  const errors = change.problem?.errors ?? {};
  return (
    <Card label="My password" title="My password" pad="form" className="grid gap-3">
      <form
        className="grid items-start gap-3 sm:grid-cols-[1fr_1fr_auto]"
        onSubmit={(event) => {
          event.preventDefault();
          setSaved(false);
          void change.run();
        }}
      >
        <PasswordField
          label="Password now"
          autoComplete="current-password"
          value={now}
          required
          problem={errors.now?.[0]}
          onChange={(event) => setNow(event.target.value)}
        />
        <PasswordField
          label="New password"
          autoComplete="new-password"
          hint="At least 12 characters."
          value={next}
          required
          problem={errors.next?.[0]}
          onChange={(event) => setNext(event.target.value)}
        />
        <Button type="submit" className="sm:mt-7" disabled={change.busy}>
          Change it
        </Button>
      </form>
      {change.problem && !errors.now && !errors.next && (
        <Notice title={change.problem.title}>{change.problem.detail}</Notice>
      )}
      {saved && <Notice tone="ok" title="Changed. Your other devices were signed out." />}
    </Card>
  );
}
