import type { Station, Tray } from '../api/client';
import { useOff } from '../session/session';
import { Card } from '../ui/card';
import { GaugeSheet } from './GaugeLine';

interface Props {
  tray: Tray;
  station: Station;
  title: string;
  /** Why nothing can be read here now. */
  locked?: string;
}

/** A station that reads gauge lines. */
export function LinesPage({ tray, station, title, locked }: Props) {
  const off = useOff(tray);
  const lines = tray.lines.filter((line) => line.station === station);
  if (lines.length === 0) {
    return (
      <Card label={title} title={title}>
        <p>
          {tray.spec
            ? `Sheet ${tray.spec.code} asks for nothing to be read here.`
            : 'Nothing is usually read here on such a carburetor. Find its spec sheet at Kit by the stamped number, or make one there.'}
        </p>
      </Card>
    );
  }
  const shut = lines.filter((line) => line.leftShut);
  return (
    <GaugeSheet
      tray={tray.number}
      lines={lines}
      logbook={tray.logbook}
      locked={off !== undefined || locked !== undefined}
      title={title}
      notOpened={shut.map((line) => line.label)}
      cautionOnCard={tray.next.caution?.key}
      usual={locked === undefined && off === undefined}
      note={
        locked ??
        (off !== undefined
          ? ''
          : `${tray.spec ? `Sheet ${tray.spec.code}, issue ${tray.spec.issue}` : 'No sheet yet: what has no limit is kept'} · Enter records and moves on`)
      }
    />
  );
}
