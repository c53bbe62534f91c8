import { Card } from '../ui/card';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api, ask, type UnitSystem } from '../api/client';
import { useWrite } from '../api/useWrite';
import { useKept } from '../outbox/drafts';
import { setSingleKeys, singleKeys, type SingleKeys } from './hotkeys';
import { keys } from '../api/keys';
import { Button } from '../ui/button';
import { Choice } from '../ui/choice';
import { TextArea } from '../ui/field';
import { Notice } from '../ui/states';
import { useAllowed, usePerson, useSession } from './session';
import { Devices } from './Devices';
import { MyPassword } from './MyPassword';
import { MyPin, ProveMyself } from './MyPin';
import { SharedBenches } from './SharedBenches';
import { applyTheme, storedTheme, type Theme } from './theme';

const unitOptions = [
  { value: 'metric', label: 'mm, kPa, g' },
  { value: 'inch', label: 'in, psi, oz' },
] as const;
const themes = [
  { value: 'device', label: 'As the device' },
  { value: 'light', label: 'Light' },
  { value: 'dark', label: 'Dark' },
] as const;
const singles = [
  { value: 'on', label: 'On' },
  { value: 'withAlt', label: 'With Alt held' },
  { value: 'off', label: 'Off' },
] as const;

/** The shop's sets of pins, each taken by a touch. */
function PinSets({ onTake }: { onTake: (pins: string) => void }) {
  const shop = useQuery({ queryKey: keys.shop, queryFn: () => ask(api.GET('/api/shop')) });
  const sets = shop.data?.pinSets ?? [];
  if (sets.length === 0) return null;
  return (
    <div className="grid gap-1">
      <span className="font-strong">Sets of the shop</span>
      <span className="flex flex-wrap gap-2">
        {sets.map((set) => (
          <Button key={set.name} onClick={() => onTake(set.pins)}>
            {set.name}
          </Button>
        ))}
      </span>
      <p className="text-mute">With no pins of your own you go by the first of them.</p>
    </div>
  );
}

/** How one person works: the units they read and the pins they own. Changes nothing that was recorded. */
export function MyBenchPage() {
  const person = usePerson();
  const mayTrust = useAllowed('managePeople');
  const { refresh } = useSession();
  const [units, setUnits] = useState<UnitSystem>(person.units);
  const [pins, keepPins, clearPins] = useKept(`${person.id}:pins`, person.pins);
  const [theme, setTheme] = useState<Theme>(storedTheme);
  const [single, setSingle] = useState<SingleKeys>(singleKeys);
  const [saved, setSaved] = useState(false);
  const { run, busy, problem } = useWrite(
    async () => {
      await ask(api.PUT('/api/me', { body: { units, pins } }));
      await refresh();
    },
    {
      done: () => {
        clearPins();
        setSaved(true);
      },
    },
  );
  return (
    <div className="grid max-w-3xl gap-4 p-3 lg:px-5">
      <header>
        <h1 className="text-heading leading-tight">My bench</h1>
        <p className="text-mute">
          {person.displayName}, {person.roleLabel}
        </p>
      </header>
      <Card label="Mine" pad="form">
        <form
          className="grid gap-5"
          onSubmit={(event) => {
            event.preventDefault();
            void run();
          }}
        >
          <div className="grid gap-1">
            <span className="font-strong">Units I read and type in</span>
            <Choice label="Units" value={units} options={unitOptions} onChange={setUnits} />
            <p className="text-mute">
              A number without a unit is taken in these. Other units can always be typed; what was recorded never
              changes.
            </p>
          </div>
          <PinSets onTake={keepPins} />
          <TextArea
            label="My pins"
            hint="Sizes and ranges, from which the deciding pin is named: #61-#80, 0.30-1.00 by 0.05, 0.315"
            className="num"
            value={pins}
            problem={problem?.errors.pins?.[0]}
            onChange={(e) => keepPins(e.target.value)}
          />
          {problem && !problem.errors.pins && <Notice title={problem.title}>{problem.detail}</Notice>}
          {saved && <Notice tone="ok" title="Saved." />}
          <div>
            <Button type="submit" look="hands" disabled={busy}>
              Save
            </Button>
          </div>
        </form>
      </Card>
      {person.byPin && <ProveMyself />}
      <MyPassword />
      <MyPin />
      {mayTrust && <SharedBenches />}
      <Devices />
      <Card label="This screen" pad="form" className="grid gap-1.5">
        <span className="font-strong">This screen</span>
        <Choice
          label="Light or dark"
          value={theme}
          options={themes}
          onChange={(next) => {
            setTheme(next);
            applyTheme(next);
          }}
        />
        <span className="mt-2 font-strong">Single keys</span>
        <Choice
          label="Single keys"
          value={single}
          options={singles}
          onChange={(next) => {
            setSingle(next);
            setSingleKeys(next);
          }}
        />
        <p className="text-mute">Such as N for a new tray or / to find something; press ? for all of them.</p>
      </Card>
    </div>
  );
}
