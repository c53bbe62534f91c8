import type { ButtonHTMLAttributes, ReactNode, Ref } from 'react';

type Look = 'hands' | 'plain' | 'quiet';

const looks: Record<Look, string> = {
  // The one warm colour: the thing that needs the hand now.
  hands: 'bg-dawn text-dawn-ink font-[650] hover:brightness-110',
  plain: 'border-[1.5px] border-line-strong bg-sheet text-ink font-[550] hover:border-ink',
  quiet: 'text-ink underline underline-offset-4 decoration-line-strong hover:decoration-ink',
};

interface Props extends ButtonHTMLAttributes<HTMLButtonElement> {
  look?: Look;
  ref?: Ref<HTMLButtonElement>;
  children: ReactNode;
}

export function Button({ look = 'plain', className = '', type = 'button', ...rest }: Props) {
  return (
    <button
      type={type}
      className={`inline-flex min-h-11 items-center justify-center gap-2 rounded-lg px-4 text-[1rem] disabled:opacity-60 ${looks[look]} ${className}`}
      {...rest}
    />
  );
}
