/** The numbered tag that hangs on a tray. */
export function Tag({ number, large = false }: { number: number; large?: boolean }) {
  return (
    <span
      className={`num bg-ink text-sheet relative inline-block text-right font-heavy ${
        large
          ? 'rounded-[10px_10px_10px_22px] py-1.5 pr-4 pl-8 text-number leading-none'
          : 'min-w-15 rounded-[8px_8px_8px_16px] py-1.5 pr-3 pl-6 text-title leading-none'
      }`}
    >
      <span
        aria-hidden
        className={`bg-sheet absolute top-1/2 -translate-y-1/2 rounded-full ${large ? 'left-3 size-2.5' : 'left-2 size-2'}`}
      />
      {number}
    </span>
  );
}
