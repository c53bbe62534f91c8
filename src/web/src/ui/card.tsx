import type { ReactNode } from 'react';

/** How much air is inside: the usual, less above rows that have their own, the same on all sides for a form, none. */
type Pad = 'usual' | 'rows' | 'form' | 'none';

const pads: Record<Pad, string> = {
  usual: 'px-5 pt-3 pb-4',
  rows: 'px-4 pt-3 pb-2',
  form: 'p-5',
  none: 'overflow-hidden',
};

interface Props {
  /** What it is called by whoever cannot see it. */
  label: string;
  /** What it is in the document; a part of the page unless something else is said. */
  as?: 'section' | 'li' | 'aside';
  pad?: Pad;
  /** Its heading, when it has one of the usual kind. */
  title?: string;
  /** Beside the heading. */
  aside?: ReactNode;
  /** How its content is laid out. */
  className?: string;
  children: ReactNode;
}

/** A sheet of paper on the bench: what a page is made of. */
export function Card({
  label,
  as: Element = 'section',
  pad = 'usual',
  title,
  aside,
  className = 'grid content-start gap-3',
  children,
}: Props) {
  return (
    <Element aria-label={label} className={`bg-sheet border-line rounded-xl border ${pads[pad]} ${className}`}>
      {(title ?? aside) !== undefined && (
        <header className="flex flex-wrap items-center justify-between gap-x-4">
          {title !== undefined && <h2 className="text-title">{title}</h2>}
          {aside}
        </header>
      )}
      {children}
    </Element>
  );
}
