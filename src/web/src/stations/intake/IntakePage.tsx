import { Card } from '../../ui/card';
import { useState } from 'react';
import { isKept, useKept } from '../../outbox/drafts';
import type { CarburetorFamily, ChokeKind, EngineKind, Tray } from '../../api/client';
import { useAllowed, usePerson } from '../../session/session';
import { Logbook } from '../../tray/Logbook';
import { Button, LinkButton } from '../../ui/button';
import { TextArea, TextField } from '../../ui/field';
import { useWhyShut } from '../../shell/queries';
import { chokeWord, choices, engineWord, familyWord, fuelKindWord, oilLevelWord, whoseWord } from '../../shell/words';
import { Choice } from '../../ui/choice';
import { day, localToday, moment } from '../../units/format';
import { Earlier } from './Earlier';
import { Photos } from '../../parts/Photos';
import type { StationProps } from '../../tray/stationPage';
import { StoryForm } from './StoryForm';
import { WhoseForm } from './WhoseForm';

/** What else was told when it came in; what the trace counts stands at Trace. */
function told(story: Tray['story']): [string, string][] {
  if (!story) return [];
  const litres = (ml: number): string => `${(ml / 1000).toLocaleString()} l`;
  const some = (what: string, value: string | null | undefined | false): [string, string][] =>
    value ? [[what, value]] : [];
  return [
    ...some('Whose machine', story.whose && story.whose !== 'notSaid' && whoseWord[story.whose]),
    ...some(
      'Age',
      [
        story.ageYears != null && `${story.ageYears.toString()} years`,
        story.hours != null && `${story.hours.toString()} hours`,
      ]
        .filter(Boolean)
        .join(', '),
    ),
    ...some('Dies after', story.failsAfterMin != null && `${story.failsAfterMin.toString()} min`),
    ...some(
      'Fuel',
      [
        story.fuelKind && story.fuelKind !== 'notSaid' && fuelKindWord[story.fuelKind],
        story.fuelAgeDays != null && `${story.fuelAgeDays.toString()} days old`,
      ]
        .filter(Boolean)
        .join(', '),
    ),
    ...some(
      'In the tank',
      [
        story.tankThenML != null && `${litres(story.tankThenML)} then`,
        story.tankNowML != null && `${litres(story.tankNowML)} now`,
      ]
        .filter(Boolean)
        .join(', '),
    ),
    ...some('Oil, when last read', story.oilThen && story.oilThen !== 'notSaid' && oilLevelWord[story.oilThen]),
  ];
}

interface Editing {
  /** The version these words were written over: someone else's change in between is a conflict, not overwritten. */
  version: number;
  promisedDay: string;
  stampedNumber: string;
  complaint: string;
  family: CarburetorFamily;
  engine: EngineKind | null;
  choke: ChokeKind | null;
}

/** What was said when it came in, what may change about it, and everything that happened since. */
export default function IntakePage({ tray, writing }: StationProps) {
  const person = usePerson();
  const { facts } = tray;
  const [editing, keep, clear] = useKept<Editing | null>(`${person.id}:${tray.number}:facts`, null);
  const [busy, setBusy] = useState(false);
  const mayChange = useAllowed('changeTrays') && facts.waitsFor !== 'handedBack';
  const typed = (what: string): boolean => isKept(`${person.id}:${tray.number}:${what}`);
  // What was half typed before a reload is in sight again.
  const [right, setRight] = useState(() => (typed('whose') ? 'whose' : typed('story') ? 'story' : null));
  const shut = useWhyShut();
  const begin = (): void =>
    keep({
      version: tray.version,
      promisedDay: facts.promisedDay,
      stampedNumber: facts.stampedNumber,
      complaint: facts.complaint,
      family: facts.family,
      engine: facts.engine,
      choke: facts.choke,
    });

  const save = async (edit: Editing): Promise<void> => {
    setBusy(true);
    const { version, ...mine } = edit;
    const changed = Object.fromEntries(
      Object.entries(mine).filter(([name, value]) => facts[name as keyof typeof mine] !== value),
    );
    if (Object.keys(changed).length === 0 || (await writing.change(version === tray.version ? changed : mine, version)))
      clear();
    setBusy(false);
  };

  return (
    <Card label="Check in" className="grid content-start gap-5">
      <header className="flex flex-wrap items-center justify-between gap-x-4 gap-y-2">
        <h2 className="text-title">Check in</h2>
        {!editing && (
          <span className="flex flex-wrap gap-2">
            <LinkButton to={`/tray/${tray.number}/label`}>Label</LinkButton>
            {mayChange && <Button onClick={() => setRight('whose')}>Owner, machine</Button>}
            {mayChange && <Button onClick={() => setRight('story')}>What was told</Button>}
            {facts.waitsFor !== 'handedBack' && <Button onClick={begin}>Change</Button>}
          </span>
        )}
      </header>
      {right === 'whose' && !editing && <WhoseForm tray={tray} onClose={() => setRight(null)} />}
      {right === 'story' && !editing && <StoryForm tray={tray} onClose={() => setRight(null)} />}
      {editing ? (
        <form
          className="grid gap-4 md:grid-cols-2"
          onSubmit={(event) => {
            event.preventDefault();
            void save(editing);
          }}
        >
          <TextField
            label="Promised for"
            type="date"
            className="num"
            value={editing.promisedDay}
            hint={shut(editing.promisedDay)}
            onChange={(e) => keep({ ...editing, promisedDay: e.target.value })}
            required
          />
          <TextField
            label="Stamped number"
            className="num"
            maxLength={40}
            value={editing.stampedNumber}
            onChange={(e) => keep({ ...editing, stampedNumber: e.target.value })}
          />
          <div className="md:col-span-2">
            <TextArea
              label="What the owner says"
              value={editing.complaint}
              maxLength={2000}
              onChange={(e) => keep({ ...editing, complaint: e.target.value })}
              required
            />
          </div>
          <div className="grid gap-2 md:col-span-2">
            <Choice
              label="Carburetor"
              value={editing.family}
              options={choices(familyWord)}
              onChange={(family) => keep({ ...editing, family })}
            />
            <Choice
              label="Engine"
              value={editing.engine ?? ''}
              options={choices(engineWord)}
              onChange={(engine) => keep({ ...editing, engine })}
            />
            <Choice
              label="Choke"
              value={editing.choke ?? ''}
              options={choices(chokeWord)}
              onChange={(choke) => keep({ ...editing, choke })}
            />
          </div>
          <div className="flex gap-3">
            <Button type="submit" look="hands" disabled={busy}>
              Save
            </Button>
            <Button look="quiet" onClick={clear}>
              Leave it as it was
            </Button>
          </div>
        </form>
      ) : (
        <dl className="grid grid-cols-[9rem_1fr] gap-x-4 gap-y-2 text-lead">
          {[
            ['Owner', facts.ownerContact ? `${facts.ownerName}, ${facts.ownerContact}` : facts.ownerName],
            ['Machine', facts.machineName],
            ['Stamped number', facts.stampedNumber || 'not read yet'],
            ['Owner says', facts.complaint],
            [
              'Carburetor',
              [
                familyWord[facts.family],
                facts.engine ? engineWord[facts.engine].toLowerCase() : 'engine not said',
                facts.choke ? `choke: ${chokeWord[facts.choke].toLowerCase()}` : 'choke not said',
              ].join(', '),
            ],
            ['Promised for', day(facts.promisedDay, localToday())],
            ['Came in', moment(facts.checkedInAt)],
            ...told(tray.story),
          ].map(([what, value]) => (
            <div key={what} className="contents">
              <dt className="text-mute">{what}</dt>
              <dd className={what === 'Stamped number' ? 'num' : ''}>{value}</dd>
            </div>
          ))}
        </dl>
      )}
      <Earlier owner={facts.ownerName} machine={facts.machineName} except={tray.number} />
      <Photos tray={tray.number} mayAdd={facts.waitsFor !== 'handedBack'} />
      <Logbook entries={tray.logbook} />
    </Card>
  );
}
