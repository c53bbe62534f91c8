import { Card } from '../../ui/card';
import { zodResolver } from '@hookform/resolvers/zod';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useDeferredValue, useEffect, useRef, useState, type ReactNode } from 'react';
import { useForm, useWatch, type Path } from 'react-hook-form';
import { useNavigate, useSearchParams } from 'react-router';
import { v7 as uuidv7 } from 'uuid';
import { z } from 'zod';
import { api, ask, ProblemError, problemOf, type KnownStamp, type NewTray } from '../../api/client';
import { device } from '../../outbox/device';
import { parcels, photoParcel } from '../../outbox/parcels';
import { usePerson } from '../../session/session';
import { useBench, useFaultWords, useStamped, useWhyShut } from '../../shell/queries';
import { choices, chokeWord, engineWord, familyWord } from '../../shell/words';
import { ToldEditor, toldOf, type Told } from '../../tray/ToldEditor';
import type { FromCheckIn } from '../../tray/JustCheckedIn';
import { trayPath } from '../../shell/stations';
import { Button } from '../../ui/button';
import { Choice, Several } from '../../ui/choice';
import { TextArea, TextField } from '../../ui/field';
import { Loading, Notice } from '../../ui/states';
import { useRested } from '../../ui/useRested';
import { localToday } from '../../units/format';
import { Earlier } from './Earlier';
import {
  amount,
  Ask,
  isNumber,
  litres,
  NO_NUMBER,
  NumberBox,
  Question,
  questions,
  traits,
  type Answer,
  type NumberName,
  type QuestionName,
  type Trait,
} from './questions';
import { PhotoPicker } from '../../parts/Photos';
import { keys } from '../../api/keys';

// Without its code generator, which a page that allows no foreign scripts refuses anyway.
z.config({ jitless: true });

/** A number that may be left out, as people write them. */
const number = z.string().refine(isNumber, NO_NUMBER);
/** Complaints with which fuel may be gone from the tank. */
const losing = ['tank-lost-fuel', 'leaks-fuel', 'fuel-from-overflow', 'oil-smoke'];

// Only what can be said without the server: that something is there. The rules themselves are the server's.
const form = z
  .object({
    ownerName: z.string().trim().min(1, 'Who brings it? A name or a boat will do.'),
    ownerContact: z.string(),
    machineName: z.string().trim().min(1, 'What is it off? Say the machine and where it stands.'),
    stampedNumber: z.string(),
    complaint: z.string(),
    promisedDay: z.iso.date('Choose the day.'),
    family: z.enum(['floatBowl', 'diaphragm', 'suctionTank']).nullable(),
    engine: z.enum(['fourStroke', 'twoStroke']).nullable(),
    choke: z.enum(['manual', 'vacuum', 'heat', 'lever']).nullable(),
    complaints: z.array(z.string()),
    stoodFor: questions.stoodFor.answer,
    workedOnBy: questions.workedOnBy.answer,
    oil: questions.oil.answer,
    fuel: questions.fuel.answer,
    occurs: questions.occurs.answer,
    failsAfterMin: number,
    fuelKind: questions.fuelKind.answer,
    fuelAgeDays: number,
    tankThen: number,
    tankNow: number,
    oilThen: questions.oilThen.answer,
    ageYears: number,
    hours: number,
    whose: questions.whose.answer,
    told: z.custom<Told>(),
  })
  .refine((filled) => filled.complaint.trim() !== '' || filled.complaints.length > 0, {
    path: ['complaint'],
    message: 'What does the owner say it does? Tap it, or type it.',
    when: () => true, // beside whatever else is missing
  });

/** How long a stamped number rests before it is said what it is. */
const REST_MS = 600;
type Form = z.infer<typeof form>;

interface Kept {
  values: Partial<Form>;
  trayId: string;
  entryId: string;
}

/** A carburetor comes in: five answers and it has a number. What is typed survives a reload. */
export function CheckInPage() {
  const bench = useBench();
  // The shop's usual day is part of the form; when it cannot be had, the form is there without it.
  return bench.isPending ? <Loading what="the check-in" /> : <CheckInForm offered={bench.data?.promisedDay ?? ''} />;
}

function CheckInForm({ offered }: { offered: string }) {
  const person = usePerson();
  const key = `draft:${person.id}:check-in`;
  const [kept] = useState<Kept>(() => {
    const fresh: Kept = { values: {}, trayId: uuidv7(), entryId: uuidv7() };
    try {
      return { ...fresh, ...(JSON.parse(device.get(key) ?? '{}') as Partial<Kept>) };
    } catch {
      return fresh;
    }
  });
  const latest = useQuery({ queryKey: keys.owners, queryFn: () => ask(api.GET('/api/owners')) });
  const queries = useQueryClient();
  const navigate = useNavigate();
  const whose = useSearchParams()[0].get('owner');
  const [trouble, setTrouble] = useState('');
  const { register, handleSubmit, setError, clearErrors, setValue, getValues, control, formState } = useForm<Form>({
    resolver: zodResolver(form),
    defaultValues: {
      ownerName: '',
      ownerContact: '',
      machineName: '',
      stampedNumber: '',
      complaint: '',
      family: null,
      engine: null,
      choke: null,
      complaints: [],
      stoodFor: 'notSaid',
      workedOnBy: 'notSaid',
      oil: 'notLooked',
      fuel: 'notSaid',
      occurs: 'notSaid',
      failsAfterMin: '',
      fuelKind: 'notSaid',
      fuelAgeDays: '',
      tankThen: '',
      tankNow: '',
      oilThen: 'notSaid',
      ageYears: '',
      hours: '',
      whose: 'notSaid',
      told: { tried: [], offered: [] },
      // What was kept of the bench may be of a day that is past.
      promisedDay: offered < localToday() ? '' : offered,
      ...kept.values,
      // Another one of somebody whose first is in: what was begun for somebody else stays as it is.
      ...(whose && !kept.values.ownerName ? { ownerName: whose } : {}),
    },
  });

  const shut = useWhyShut();
  const values = { ...getValues(), ...useWatch({ control }) };
  const sending = useRef(false);
  useEffect(() => {
    if (!sending.current) device.set(key, JSON.stringify({ ...kept, values }));
  });

  const asked = useDeferredValue({ owner: values.ownerName.trim(), machine: values.machineName.trim() });
  const found = useQuery({
    queryKey: keys.alike(asked.owner, asked.machine),
    queryFn: () => ask(api.GET('/api/owners/alike', { params: { query: asked } })),
    enabled: asked.owner !== '',
    placeholderData: (before) => before,
    retry: false,
  }).data;
  const alike = asked.owner === '' ? undefined : found;
  const named = useQuery({
    queryKey: keys.ownersNamed(asked.owner),
    queryFn: () => ask(api.GET('/api/owners', { params: { query: { text: asked.owner } } })),
    enabled: asked.owner !== '',
    placeholderData: (before) => before,
    retry: false,
  }).data;
  // Whoever was here last is at hand before anything is typed, and without the server.
  const owners = asked.owner === '' ? latest.data : (named ?? latest.data);
  const owner = alike?.owner ?? owners?.find((o) => o.name.toLowerCase() === values.ownerName.trim().toLowerCase());
  const { likeOwner, likeMachine } = alike ?? {};
  const asRead = values.stampedNumber.trim();
  const rested = useRested(asRead, REST_MS);
  const known = useStamped(rested).data?.sheet;
  const stamped = rested === asRead && known ? known : null;
  // What was ticked by hand stands; of the rest the sheet of the stamped number speaks.
  const apart = stamped !== null && values.family !== null && values.family !== stamped.family;
  const sheet = apart ? null : stamped;
  const family = values.family ?? sheet?.family ?? null;
  const engine = values.engine ?? sheet?.engine ?? null;
  const choke = values.choke ?? sheet?.choke ?? null;
  const kind = { family, engine, choke };
  const words = useFaultWords(family, engine, choke);
  const complaints = words.data?.findings.filter((f) => f.complaint) ?? [];
  const tapped = complaints.filter((f) => values.complaints.includes(f.id));
  const [photos, setPhotos] = useState<File[]>([]);

  const submit = async (filled: Form): Promise<void> => {
    setTrouble('');
    // Taps are words enough: what was tapped stands for what the owner says when nothing was typed.
    const complaint = filled.complaint.trim() || tapped.map((f) => f.short).join('; ');
    sending.current = true;
    const { ownerName, ownerContact, machineName, stampedNumber, promisedDay, family, engine, choke } = filled;
    const { stoodFor, workedOnBy, oil, fuel } = filled;
    const body: NewTray = {
      trayId: kept.trayId,
      entryId: kept.entryId,
      ownerName,
      ownerContact,
      machineName,
      stampedNumber,
      promisedDay,
      family,
      engine,
      choke,
      complaint,
      story: {
        complaints: tapped.map((f) => f.id),
        stoodFor,
        workedOnBy,
        oil,
        fuel,
        occurs: filled.occurs,
        failsAfterMin: amount(filled.failsAfterMin),
        fuelKind: filled.fuelKind,
        fuelAgeDays: amount(filled.fuelAgeDays),
        tankThenML: litres(filled.tankThen),
        tankNowML: litres(filled.tankNow),
        oilThen: filled.oilThen,
        ageYears: amount(filled.ageYears),
        hours: amount(filled.hours),
        whose: filled.whose,
        ...toldOf(filled.told),
      },
    };
    try {
      const tray = await ask(api.POST('/api/trays', { body }));
      device.remove(key);
      queries.setQueryData(keys.tray(tray.number), tray);
      void queries.invalidateQueries({ queryKey: keys.bench });
      let lost = 0;
      for (const photo of photos)
        await parcels.send(photoParcel(person.id, photo, { tray: tray.number })).catch(() => lost++);
      const from: FromCheckIn = { checkedIn: tray.number };
      if (lost > 0) void navigate(trayPath(tray.number, 'intake'), { state: { ...from, photosLost: lost } });
      else void navigate(trayPath(tray.number, tapped.length > 0 ? 'faults' : 'kits'), { state: from });
    } catch (error) {
      if (error instanceof ProblemError && error.passing) {
        // It goes out by itself when the server is back; until then it stands here with what it is waiting for.
        await parcels.keep(
          { what: 'checkIn', id: kept.trayId, personId: person.id, takenAt: new Date().toISOString(), body },
          ...photos.map((photo) => photoParcel(person.id, photo, { tray: null, checkIn: kept.trayId })),
        );
        device.remove(key);
        void navigate('/');
        return;
      }
      sending.current = false;
      const problem = problemOf(error);
      const fields = Object.entries(problem.errors);
      fields.forEach(([field, messages]) => setError(storyField(field) as Path<Form>, { message: messages[0] ?? '' }));
      if (fields.length === 0) setTrouble(`${problem.title} ${problem.detail}`);
    }
  };
  const problem = (field: keyof Form): string | undefined => formState.errors[field]?.message;
  const has = (id: string): boolean => tapped.some((f) => f.id === id);
  const told = values.told as Told;
  const answer = <N extends QuestionName>(name: N, given: Answer<N>): void =>
    setValue(name as Path<Form>, given as never);
  const asks = (...names: QuestionName[]): ReactNode =>
    names.map((name) => <Question key={name} name={name} value={values[name]} onAnswer={answer} />);
  const boxes = (...names: NumberName[]): ReactNode =>
    names.map((name) => <NumberBox key={name} of={name} problem={problem(name)} {...register(name)} />);

  return (
    <div className="p-3 lg:px-5 lg:pb-5">
      <h1 className="mb-1 text-heading">Check in a carburetor</h1>
      <p className="text-mute mb-3">
        It gets a tray and a number. Owner, machine and one complaint are enough to start.
      </p>
      <form
        noValidate
        onSubmit={(event) => void handleSubmit(submit)(event)}
        className="grid items-start gap-3 xl:grid-cols-[minmax(0,5fr)_minmax(0,6fr)]"
      >
        <Card label="Whose and what" pad="form" className="grid gap-x-5 gap-y-3 md:grid-cols-2">
          <div>
            <TextField
              label="Owner"
              hint="A person, a boat or a stall"
              list="owners"
              problem={problem('ownerName')}
              autoFocus={!whose}
              {...register('ownerName')}
            />
            {likeOwner && (
              <Same
                what={likeOwner.name}
                tray={Math.max(0, ...likeOwner.machines.map((m) => m.tray ?? 0))}
                onTake={() => setValue('ownerName', likeOwner.name)}
              />
            )}
            <datalist id="owners">
              {owners?.map((o) => (
                <option key={o.name} value={o.name} />
              ))}
            </datalist>
          </div>
          <TextField
            label="How to reach them"
            hint={owner?.contact ? `Last time: ${owner.contact}` : 'May stay empty'}
            problem={problem('ownerContact')}
            {...register('ownerContact')}
          />
          <div>
            <TextField
              label="Machine"
              hint="What it is and where it stands"
              list="machines"
              autoFocus={whose !== null}
              problem={problem('machineName')}
              {...register('machineName')}
            />
            {likeMachine && (
              <Same
                what={likeMachine.name}
                tray={likeMachine.tray ?? 0}
                onTake={() => setValue('machineName', likeMachine.name)}
              />
            )}
            <datalist id="machines">
              {owner?.machines.map((m) => (
                <option key={m.name} value={m.name} />
              ))}
            </datalist>
          </div>
          <TextField
            label="Stamped number"
            hint="As read; may stay empty"
            className="num"
            problem={problem('stampedNumber')}
            {...register('stampedNumber')}
          />
          <div className="md:col-span-2">
            <TextArea
              label="What the owner says"
              hint="In their words; may stay empty when it is tapped"
              problem={problem('complaint')}
              {...register('complaint')}
            />
          </div>
          <div className="grid gap-3 md:col-span-2">
            {stamped && <Known stamped={stamped} number={asRead} said={values} />}
            {(Object.keys(traits) as Trait[]).map((name) => (
              <Ask key={name} what={traits[name].label}>
                <Choice
                  label={traits[name].label}
                  value={kind[name] ?? ''}
                  invalid={problem(name) !== undefined}
                  options={choices<string>(traits[name].words)}
                  onChange={(word) => {
                    setValue(name, word as Form[Trait]);
                    clearErrors(name);
                  }}
                  small
                />
                {problem(name) && <p className="text-bad font-medium">{problem(name)}</p>}
              </Ask>
            ))}
          </div>
          <TextField
            label="Promised for"
            type="date"
            min={localToday()}
            className="num"
            problem={problem('promisedDay')}
            hint={shut(values.promisedDay)}
            {...register('promisedDay')}
          />
          <div className="md:col-span-2">
            <Earlier owner={owner?.name ?? ''} machine={values.machineName.trim()} />
          </div>
        </Card>
        <Card label="The story" pad="form" className="grid gap-3">
          <Ask what="What the owner complains of">
            <Several
              label="What the owner complains of"
              values={values.complaints}
              options={complaints.map((f) => ({ value: f.id, label: f.short }))}
              onChange={(next) => setValue('complaints', next)}
            />
          </Ask>
          <Pair>
            {asks('stoodFor', 'workedOnBy', 'fuel')}
            {engine !== 'twoStroke' && asks('oil')}
          </Pair>
          {tapped.length > 0 && (
            <Pair>
              {asks('occurs')}
              {has('dies-after-minutes') && boxes('failsAfterMin')}
            </Pair>
          )}
          {losing.some(has) && (
            <>
              <Pair>{boxes('tankThen', 'tankNow')}</Pair>
              {engine !== 'twoStroke' && asks('oilThen')}
            </>
          )}
          {(values.workedOnBy === 'owner' || values.workedOnBy === 'anotherShop') && (
            <ToldEditor
              causes={words.data?.causes ?? []}
              value={told}
              only="tried"
              onChange={(next) => setValue('told', next)}
            />
          )}
          <details className="border-line border-t pt-1">
            <summary className="text-mute min-h-11 cursor-pointer py-2.5 font-medium">
              More of the story: whose, age, fuel, what somebody says it is
            </summary>
            <div className="grid gap-3">
              <Pair>{asks('whose', 'fuelKind')}</Pair>
              <div className="grid gap-x-5 gap-y-3 sm:grid-cols-3">{boxes('fuelAgeDays', 'ageYears', 'hours')}</div>
              <ToldEditor
                causes={words.data?.causes ?? []}
                value={told}
                only="offered"
                onChange={(next) => setValue('told', next)}
              />
            </div>
          </details>
          {problem('told') && <p className="text-bad font-medium">{problem('told')}</p>}
          {values.oil === 'fuelInIt' && (
            <Notice tone="unsure" title="Do not run this engine before its oil is changed.">
              The inlet valve has let fuel through into the sump. Drain it by the local rule for waste oil.
            </Notice>
          )}
          {trouble && <Notice title={trouble}>Everything typed here is kept on this device.</Notice>}
          <div className="flex flex-wrap items-end justify-between gap-3">
            <Ask what="How it looks">
              <div className="flex flex-wrap items-center gap-3">
                <PhotoPicker onPick={(files) => setPhotos([...photos, ...files])} />
                {photos.length > 0 && (
                  <span>{photos.length === 1 ? '1 photo' : `${photos.length} photos`} to go with it</span>
                )}
              </div>
            </Ask>
            <Button type="submit" look="hands" disabled={formState.isSubmitting}>
              Give it a tray
            </Button>
          </div>
        </Card>
      </form>
    </div>
  );
}

/** What the stamped number says, and where what was ticked says otherwise. */
function Known({ stamped, number, said }: { stamped: KnownStamp; number: string; said: Pick<Form, Trait> }) {
  const words = [
    familyWord[stamped.family],
    stamped.engine && engineWord[stamped.engine],
    stamped.choke && `choke ${chokeWord[stamped.choke]}`,
  ];
  const differs = (['family', 'engine', 'choke'] as const).filter(
    (trait) => said[trait] !== null && stamped[trait] !== null && said[trait] !== stamped[trait],
  );
  return (
    <Notice
      tone={differs.length > 0 ? 'unsure' : 'ok'}
      title={`${number} is the ${stamped.maker} ${stamped.code}: ${words.filter(Boolean).join(', ').toLowerCase()}.`}
    >
      {differs.length > 0
        ? `What is ticked says otherwise (${differs.join(', ')}). Look at the carburetor again, then at the number.`
        : 'Its sheet comes with it. Tick something only where this one is different.'}
    </Notice>
  );
}

/** The box of a field of the story. */
const storyField = (field: string): string =>
  ({ 'story.tankThenML': 'tankThen', 'story.tankNowML': 'tankNow' })[field] ??
  field.replace(/^story\.(tried.*)?/, (_, tried) => (tried ? 'told' : ''));

/** Somebody or something that is in the book under almost the same name. */
function Same({ what, tray, onTake }: { what: string; tray: number; onTake: () => void }) {
  return (
    <p className="text-unsure flex flex-wrap items-center gap-x-3">
      {tray > 0 ? `The same as tray ${tray}’s ${what}?` : `The same as ${what}?`}
      <Button look="quiet" className="px-0!" onClick={onTake}>
        Yes, the same
      </Button>
    </p>
  );
}

/** Two questions side by side where there is room. */
function Pair({ children }: { children: ReactNode }) {
  return <div className="grid gap-x-5 gap-y-3 sm:grid-cols-2">{children}</div>;
}
