import { Eye, EyeOff } from 'lucide-react';
import { Label } from 'radix-ui';
import {
  useId,
  useState,
  type InputHTMLAttributes,
  type ReactNode,
  type SelectHTMLAttributes,
  type TextareaHTMLAttributes,
} from 'react';

interface Shared {
  label: string;
  hint?: string | undefined;
  problem?: string | undefined;
}

const box =
  'w-full rounded-lg border-[1.5px] bg-sheet px-3 py-2 text-lead min-h-11 placeholder:text-mute aria-invalid:border-bad border-line-strong';

/** A label, whatever it labels, and what is wrong with it. */
export function Field({ label, hint, problem, children }: Shared & { children: (props: FieldProps) => ReactNode }) {
  const id = useId();
  const said = `${id}-said`;
  return (
    <div className="grid content-start gap-1">
      <Label.Root htmlFor={id} className="font-strong">
        {label}
      </Label.Root>
      {children({
        id,
        'aria-invalid': problem ? true : undefined,
        'aria-describedby': problem || hint ? said : undefined,
      })}
      {problem ? (
        <p id={said} className="text-bad font-medium" role="alert">
          {problem}
        </p>
      ) : hint ? (
        <p id={said} className="text-mute text-note">
          {hint}
        </p>
      ) : null}
    </div>
  );
}

interface FieldProps {
  id: string;
  'aria-invalid': true | undefined;
  'aria-describedby': string | undefined;
}

export function TextField({
  label,
  hint,
  problem,
  className = '',
  ...rest
}: Shared & InputHTMLAttributes<HTMLInputElement>) {
  return (
    <Field label={label} hint={hint} problem={problem}>
      {(props) => <input {...props} className={`${box} ${className}`} autoComplete="off" {...rest} />}
    </Field>
  );
}

/** One of many words, by a list that the device opens. */
export function SelectField({
  label,
  hint,
  problem,
  className = '',
  ...rest
}: Shared & SelectHTMLAttributes<HTMLSelectElement>) {
  return (
    <Field label={label} hint={hint} problem={problem}>
      {(props) => <select {...props} className={`${box} min-w-0 ${className}`} {...rest} />}
    </Field>
  );
}

/** A box for a password, which can be shown while it is typed: with gloves on, and nobody looking. */
export function PasswordField({
  label,
  hint,
  problem,
  ...rest
}: Shared & Omit<InputHTMLAttributes<HTMLInputElement>, 'type'>) {
  const [shown, setShown] = useState(false);
  return (
    <Field label={label} hint={hint} problem={problem}>
      {(props) => (
        <span className="relative block">
          <input
            {...props}
            {...rest}
            type={shown ? 'text' : 'password'}
            spellCheck={false}
            autoCapitalize="none"
            className={`${box} pr-12`}
          />
          <button
            type="button"
            aria-label="Show what is typed"
            aria-pressed={shown}
            onClick={() => setShown(!shown)}
            className="text-mute hover:text-ink absolute inset-y-0 right-0 grid w-11 place-items-center rounded-lg"
          >
            {shown ? <EyeOff aria-hidden size={20} /> : <Eye aria-hidden size={20} />}
          </button>
        </span>
      )}
    </Field>
  );
}

export function TextArea({
  label,
  hint,
  problem,
  className = '',
  ...rest
}: Shared & TextareaHTMLAttributes<HTMLTextAreaElement>) {
  return (
    <Field label={label} hint={hint} problem={problem}>
      {(props) => <textarea {...props} className={`${box} ${className}`} rows={3} {...rest} />}
    </Field>
  );
}
