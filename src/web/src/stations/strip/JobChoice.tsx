import { Card } from '../../ui/card';
import type { LedgerView } from '../../api/client';
import { Button } from '../../ui/button';

interface Props {
  view: LedgerView;
  mayRecord: boolean;
  onChoose: (job: string) => void;
  onCancel?: () => void;
}

/** How far it is taken apart: all of it, a part of it on the machine, or not at all. */
export function JobChoice({ view, mayRecord, onChoose, onCancel }: Props) {
  return (
    <Card label="How far it comes apart" className="grid content-start gap-2">
      <h2 className="text-title">How far does it come apart?</h2>
      <p className="text-mute">
        Every part that comes out gets a line: nothing stays on the bench, nothing goes back the wrong way round.
      </p>
      <ul>
        {view.jobs.map((job, i) => (
          <li key={job.key} className="border-line flex flex-wrap items-center justify-between gap-x-4 border-t py-1.5">
            <span className="min-w-0">
              <span className="block text-lead font-bold">{job.label}</span>
              <span className="text-mute">{job.note}</span>
            </span>
            <Button
              look={i === 0 && !view.job ? 'hands' : 'plain'}
              disabled={!mayRecord}
              aria-label={`${view.job?.key === job.key ? 'As it is' : 'Take this'}: ${job.label}`}
              onClick={() => onChoose(job.key)}
            >
              {view.job?.key === job.key ? 'As it is' : 'Take this'}
            </Button>
          </li>
        ))}
      </ul>
      {onCancel && (
        <Button look="quiet" className="justify-self-start px-0!" onClick={onCancel}>
          Leave it as it is
        </Button>
      )}
    </Card>
  );
}
