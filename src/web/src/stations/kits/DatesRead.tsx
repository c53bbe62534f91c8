import type { IdentifyView } from '../../api/client';

const date = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long', year: 'numeric' });
const long = (iso: string): string => date.format(new Date(`${iso}T12:00`));

/** What the date code can mean, by each maker's way of writing it. */
export function DatesRead({ dates }: { dates: IdentifyView['dates'] }) {
  if (dates.length === 0) return null;
  return (
    <ul aria-label="Made" className="grid gap-1">
      {dates.map((read) => (
        <li key={read.maker} className="leading-snug">
          {read.problem ? (
            <span className="text-unsure">{read.problem}</span>
          ) : (
            <>
              Made{' '}
              <span className="font-bold">
                {read.made
                  .map((made) => (made.from === made.to ? long(made.from) : `${long(made.from)} to ${long(made.to)}`))
                  .join(' or ')}
              </span>
              {read.made.some((made) => made.misread > 0) && ', look-alikes put right'}
            </>
          )}{' '}
          <span className="text-mute">
            {read.maker} writes {read.pattern}.
          </span>
        </li>
      ))}
    </ul>
  );
}
