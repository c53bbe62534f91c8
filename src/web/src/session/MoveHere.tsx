import { useState } from 'react';
import { problemOf, type Problem } from '../api/client';
import { Button } from '../ui/button';
import { Field, PasswordField, TextField } from '../ui/field';
import { Notice } from '../ui/states';
import { useSession } from './session';

/** A shop that begins with the archive of another place: everything comes with it but the passwords. */
export function MoveHere({ onBack }: { onBack: () => void }) {
  const { moveHere } = useSession();
  const [who, setWho] = useState({ code: '', userName: '', password: '' });
  const [archive, setArchive] = useState<File | null>(null);
  const [problem, setProblem] = useState<Problem | null>(null);
  const [busy, setBusy] = useState(false);
  const error = (field: string): string | undefined => problem?.errors[field]?.[0];
  const box = (field: keyof typeof who) => ({
    value: who[field],
    problem: error(field),
    required: true,
    onChange: (event: { target: { value: string } }) => setWho({ ...who, [field]: event.target.value }),
  });
  return (
    <form
      className="grid gap-4 p-7 pt-5"
      onSubmit={(event) => {
        event.preventDefault();
        if (!archive) return;
        setBusy(true);
        setProblem(null);
        moveHere(archive, who).catch((said: unknown) => {
          setProblem(problemOf(said));
          setBusy(false);
        });
      }}
    >
      <div>
        <h1 className="text-number leading-tight font-heavy">Move a shop here</h1>
        <p className="text-mute">
          The archive is what “Everything as one file” wrote, on the page Rules at the other place. It holds no
          passwords: you set yours here, and give everybody else a code on the page People.
        </p>
      </div>
      {problem && Object.keys(problem.errors).length === 0 && <Notice title={problem.title}>{problem.detail}</Notice>}
      <TextField label="Code from the terminal" className="num" autoFocus {...box('code')} />
      <Field label="Archive" problem={error('archive')}>
        {(props) => (
          <input
            {...props}
            type="file"
            accept=".zip,application/zip"
            required
            className="min-h-11 py-2"
            onChange={(event) => setArchive(event.target.files?.[0] ?? null)}
          />
        )}
      </Field>
      <TextField
        label="Name you sign in with"
        hint="You are one of its leads."
        autoComplete="username"
        {...box('userName')}
      />
      <PasswordField
        label="New password"
        hint="At least 12 characters; a few words one after the other."
        autoComplete="new-password"
        {...box('password')}
      />
      <div className="flex flex-wrap gap-3">
        <Button type="submit" look="hands" disabled={busy}>
          {busy ? 'Moving in …' : 'Move in'}
        </Button>
        <Button look="quiet" onClick={onBack}>
          A new shop instead
        </Button>
      </div>
    </form>
  );
}
