import { Link } from 'react-router';

interface Step {
  to: string;
  label: string;
  /** What stands there, in a word or two. */
  note?: string;
  here: boolean;
}

/** A few views of one thing, each with an address of its own. */
export function Steps({ label, steps }: { label: string; steps: Step[] }) {
  return (
    <nav aria-label={label} className="border-line flex flex-wrap gap-x-1 border-b">
      {steps.map((step) => (
        <Link
          key={step.to}
          to={step.to}
          aria-current={step.here ? 'step' : undefined}
          className={`aria-[current=step]:border-ink text-mute aria-[current=step]:text-ink hover:text-ink -mb-px inline-flex
            min-h-11 items-baseline gap-2 border-b-[3px] border-transparent px-3 pt-2 text-lead font-strong
            max-sm:px-2`}
        >
          {step.label}
          {step.note && <span className="text-note font-normal max-sm:hidden">{step.note}</span>}
        </Link>
      ))}
    </nav>
  );
}
