import { Download } from 'lucide-react';
import type { ButtonHTMLAttributes, ReactNode, Ref } from 'react';
import { Link, type LinkProps } from 'react-router';

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
  children: ReactNode;
}

const shape = 'inline-flex min-h-11 items-center justify-center gap-2 rounded-lg px-4 text-base disabled:opacity-60';

export function Button({ look = 'plain', className = '', type = 'button', ...rest }: Props) {
  return <button type={type} className={`${shape} ${looks[look]} ${className}`} {...rest} />;
}

/** A link that looks like a button: it leads somewhere and changes nothing. */
export function LinkButton({ look = 'plain', className = '', ...rest }: LinkProps & { look?: Look }) {
  return <Link className={`${shape} ${looks[look]} ${className}`} {...rest} />;
}

/** A link that looks like a button and brings a file. */
export function FileButton({ to, children }: { to: string; children: ReactNode }) {
  return (
    <a className={`${shape} ${looks.plain}`} href={to} download>
      <Download aria-hidden size={18} /> {children}
    </a>
  );
}
