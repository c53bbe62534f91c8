import { PartShape } from './PartShape';

/** A part by itself, with its name under it. */
export function PartPicture({ part, label }: { part: string; label: string }) {
  return (
    <figure className="w-32">
      <svg
        viewBox="-130 -50 260 100"
        aria-hidden
        fill="var(--sheet)"
        stroke="var(--ink)"
        strokeWidth={2}
        strokeLinejoin="round"
        className="[&_.hole]:fill-[var(--paper)] [&_.metal]:fill-[var(--steel)] [&_.thick]:[stroke-width:6] [&_.thin]:[stroke-width:1.4] [&_.wire]:fill-none"
      >
        <PartShape part={part} way={null} />
      </svg>
      <figcaption className="text-mute text-center text-note leading-tight">{label}</figcaption>
    </figure>
  );
}
