import { LinesPage } from '../../gauge/LinesPage';
import { LinkButton } from '../../ui/button';
import { Notice } from '../../ui/states';
import { trayPath, type StationProps } from '../registry';

/** Fuel on and rocked, then idle and governed speed; not while a part lies on the bench. */
export default function ProvingPage({ tray }: StationProps) {
  const notYet = tray.whyNotProven;
  return (
    <div className="grid content-start gap-3">
      {notYet !== null && (
        <Notice title="Not to be proven yet.">
          <p>{notYet}</p>
          <LinkButton look="quiet" className="px-0" to={trayPath(tray.number, 'build')}>
            Go to build
          </LinkButton>
        </Notice>
      )}
      <LinesPage
        tray={tray}
        station="proving"
        title="Prove it on the bench"
        {...(notYet === null ? {} : { locked: 'Not to be proven yet' })}
      />
    </div>
  );
}
