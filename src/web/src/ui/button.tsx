import { Download } from 'lucide-react';
import { createContext, useContext, type ButtonHTMLAttributes, type MouseEvent, type ReactNode, type Ref } from 'react';
import { Link, type LinkProps } from 'react-router';
import { tell } from './announce';

type Look = 'hands' | 'plain' | 'quiet';

const looks: Record<Look, string> = {
  // The one warm colour: the thing that needs the hand now.
  hands: 'bg-dawn text-dawn-ink font-bold hover:brightness-110',
  plain: 'border-[1.5px] border-line-strong bg-sheet text-ink font-medium hover:border-ink',
  quiet: 'text-ink underline underline-offset-4 decoration-line-strong hover:decoration-ink',
};

interface Props extends ButtonHTMLAttributes<HTMLButtonElement> {
  look?: Look;
  ref?: Ref<HTMLButtonElement>;
  /** Why it is off, said when it is pressed all the same; off while there is a reason. */
  why?: string | undefined;
  children: ReactNode;
}

const shape =
  'inline-flex min-h-11 items-center justify-center gap-2 rounded-lg px-4 text-base aria-disabled:opacity-60';

/** Why everything that is off in a part of a page is off, where one reason holds for all of it. */
export const OffReason = createContext<string | undefined>(undefined);

/** A part of a page that is off for a reason of its own; what all of the page is off for comes first. */
export function OffBecause({ why, children }: { why: string | null | undefined; children: ReactNode }) {
  const ofAll = useContext(OffReason);
  return <OffReason value={ofAll ?? why ?? undefined}>{children}</OffReason>;
}

export interface Off {
  off: boolean;
  why: string | undefined;
  /** Says why it is off, where that is known. */
  sayWhy: () => void;
}

/** Whether something is off, and why: for a reason of its own, or for that of all that is around it. */
export function useOffHere(disabled: boolean, own?: string): Off {
  const ofAll = useContext(OffReason);
  const why = own ?? (disabled ? ofAll : undefined);
  return {
    off: disabled || why !== undefined,
    why,
    sayWhy: () => {
      if (why !== undefined) tell(why);
    },
  };
}

/** A button without a look of its own. One that is off keeps the focus, takes no press, and says why. */
export function BareButton({ type = 'button', disabled = false, why: own, onClick, ...rest }: Omit<Props, 'look'>) {
  const { off, why, sayWhy } = useOffHere(disabled, own);
  const press = (event: MouseEvent<HTMLButtonElement>): void => {
    if (!off) {
      onClick?.(event);
      return;
    }
    // Also the press that Enter in a box of its form makes.
    event.preventDefault();
    sayWhy();
  };
  return <button type={type} aria-disabled={off || undefined} title={why} onClick={press} {...rest} />;
}

/** What is pressed to do something. */
export function Button({ look = 'plain', className = '', ...rest }: Props) {
  return (
    <BareButton
      className={`${shape} ${looks[look]} ${className}`}
      data-warm={look === 'hands' || undefined}
      {...rest}
    />
  );
}

/** A link that looks like a button: it leads somewhere and changes nothing. */
export function LinkButton({ look = 'plain', className = '', ...rest }: LinkProps & { look?: Look }) {
  return (
    <Link className={`${shape} ${looks[look]} ${className}`} data-warm={look === 'hands' || undefined} {...rest} />
  );
}

/** A link that looks like a button and brings a file. */
export function FileButton({ to, children }: { to: string; children: ReactNode }) {
  return (
    <a className={`${shape} ${looks.plain}`} href={to} download>
      <Download aria-hidden size={18} /> {children}
    </a>
  );
}
