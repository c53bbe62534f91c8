import { useState } from 'react';
import type { ChokeKind, Finding, Tray } from '../../api/client';
import { LinesPage } from '../../gauge/LinesPage';
import { useOff } from '../../session/session';
import { choices, chokeWord } from '../../shell/words';
import { OffBecause } from '../../ui/button';
import { Card } from '../../ui/card';
import { Choice } from '../../ui/choice';
import { Notice } from '../../ui/states';
import { findingOf, lineOf } from '../../tray/drawn';
import type { StationProps } from '../../tray/stationPage';
import { ChokeDrawing } from './ChokeDrawing';
import { StartClock } from './StartClock';

const titles: Record<ChokeKind, string> = {
  manual: 'Choke, set and let go by hand',
  vacuum: 'Choke, pulled open by suction',
  heat: 'Choke, opened by heat',
  lever: 'Choke, set by hand and let go by the run lever',
};

/** How far the plate of a choke that is not timed stands open, by what was seen last. */
const seenOpen = (tray: Tray): number => {
  const finding = (key: string): Finding => findingOf(lineOf(tray, `chokes/${key}`));
  if (finding('lever-lets') === 'misses' || finding('knob-ends') === 'notOpen') return 0;
  if (finding('lever-return') === 'half') return 0.5;
  return finding('lever-return') === 'notRead' ? 0 : 1;
};

/** What was seen of the plate of a choke that is not timed: where it came to rest before what let it go. */
const plateWords = (tray: Tray): string => {
  const seen = ['lever-return', 'lever-lets', 'knob-ends']
    .map((key) => tray.lines.find((line) => line.key === `chokes/${key}`))
    .find((line) => line?.standing != null);
  return seen ? `${seen.label}: ${seen.judgement.word.toLowerCase()}.` : 'Not looked at yet.';
};

/** The choke: looked at in the order of its kind, timed from the start, its release set. */
export default function ChokesPage({ tray, writing }: StationProps) {
  const [busy, setBusy] = useState(false);
  const mayRecord = useOff(tray) === undefined;
  const { choke } = tray.facts;
  const opening = tray.lines.find((line) => line.key === 'chokes/opening');
  const locked = tray.whyNotTimed ?? tray.whyNotRun;
  return (
    <div className="grid content-start gap-3">
      {choke === null && (
        <Card label="Which choke" title="Which choke has it?" className="grid gap-2.5">
          <p>Each kind is looked at and timed in its own order.</p>
          <Choice
            label="Choke"
            value=""
            options={choices(chokeWord)}
            disabled={!mayRecord || busy}
            onChange={(kind) => {
              setBusy(true);
              void writing.change({ choke: kind }).finally(() => setBusy(false));
            }}
          />
        </Card>
      )}
      {opening && locked !== null && (
        <Notice title="Not to be timed yet.">
          <p>{locked}</p>
        </Notice>
      )}
      {(choke === 'vacuum' || choke === 'heat') && opening && (
        <OffBecause why={locked}>
          <StartClock tray={tray.number} line={opening} choke={choke} disabled={!mayRecord || locked !== null} />
        </OffBecause>
      )}
      {(choke === 'lever' || choke === 'manual') && tray.spec && (
        <Card label="Choke plate" className="grid items-center gap-x-5 gap-y-1 sm:grid-cols-[14rem_1fr]">
          <ChokeDrawing choke={choke} opening={seenOpen(tray)} />
          <div>
            <p className="text-mute text-note font-strong">What was seen of the plate</p>
            <p className="text-title">{plateWords(tray)}</p>
          </div>
        </Card>
      )}
      <LinesPage key={choke} tray={tray} station="chokes" title={choke ? titles[choke] : 'Choke'} />
    </div>
  );
}
