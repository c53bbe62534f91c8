import { X } from 'lucide-react';
import { Dialog as Radix } from 'radix-ui';
import { useEffect, useRef, type ReactNode } from 'react';
import { opener } from './focus';

interface Props {
  title: string;
  description?: string;
  open: boolean;
  onOpenChange: (open: boolean) => void;
  children: ReactNode;
  /** From the left edge and full height, for the rail on small screens. */
  drawer?: boolean;
}

/** A window. It opens on its first box, else on its first button, and closing it leads back to what opened it. */
export function Dialog({ title, description, open, onOpenChange, children, drawer = false }: Props) {
  const content = useRef<HTMLDivElement>(null);
  const from = useRef<HTMLElement>(undefined);
  useEffect(() => {
    if (open) from.current = opener();
  }, [open]);
  return (
    <Radix.Root open={open} onOpenChange={onOpenChange}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-40 bg-[#0c1830b0]" />
        <Radix.Content
          ref={content}
          onOpenAutoFocus={(event) => {
            const first =
              content.current?.querySelector<HTMLElement>('[data-first]') ??
              content.current?.querySelector<HTMLElement>('input, textarea, select, [role="radio"]') ??
              content.current?.querySelector<HTMLElement>('[data-body] button, [data-body] a');
            if (!first || content.current?.contains(document.activeElement)) return;
            event.preventDefault();
            first.focus();
          }}
          onCloseAutoFocus={(event) => {
            event.preventDefault();
            if (from.current?.isConnected) from.current.focus();
          }}
          {...(description ? {} : { 'aria-describedby': undefined })}
          className={
            drawer
              ? 'bg-night text-night-text fixed inset-y-0 left-0 z-50 w-72 overflow-y-auto'
              : 'bg-sheet fixed top-1/2 left-1/2 z-50 max-h-[88dvh] w-[min(36rem,92vw)] -translate-x-1/2 -translate-y-1/2 overflow-y-auto rounded-xl p-6'
          }
        >
          <div className={drawer ? 'sr-only' : 'mb-3 flex items-start justify-between gap-4'}>
            <div>
              <Radix.Title className="text-heading font-bold">{title}</Radix.Title>
              {description && <Radix.Description className="text-mute mt-1">{description}</Radix.Description>}
            </div>
            <Radix.Close aria-label="Close" className="-m-2 grid size-11 place-items-center rounded-lg">
              <X aria-hidden size={22} />
            </Radix.Close>
          </div>
          <div data-body>{children}</div>
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
