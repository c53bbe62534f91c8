import type { ReactNode } from 'react';

interface Props {
  /** What it is called by whoever cannot see it. */
  label: string;
  /** Its heading, when it has one of the usual kind. */
  title?: string;
  /** Beside the heading. */
  aside?: ReactNode;
  className?: string;
  children: ReactNode;
}

/** A sheet of paper on the bench: what a page is made of. */
export function Card({ label, title, aside, className = 'gap-3', children }: Props) {
  return (
    <section
      aria-label={label}
      className={`bg-sheet border-line grid content-start rounded-xl border px-5 pt-3 pb-4 ${className}`}
    >
      {(title ?? aside) !== undefined && (
        <header className="flex flex-wrap items-center justify-between gap-x-4">
          {title !== undefined && <h2 className="text-title">{title}</h2>}
          {aside}
        </header>
      )}
      {children}
    </section>
  );
}
