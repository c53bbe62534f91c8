import { zodResolver } from '@hookform/resolvers/zod';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { useForm, useWatch, type Path } from 'react-hook-form';
import { useNavigate } from 'react-router';
import { v7 as uuidv7 } from 'uuid';
import { z } from 'zod';
import { api, ask, problemOf } from '../../api/client';
import { usePerson } from '../../session/session';
import { useBench, useTakeTray } from '../../shell/queries';
import { trayPath } from '../../shell/words';
import { Button } from '../../ui/button';
import { TextArea, TextField } from '../../ui/field';
import { Loading, Notice } from '../../ui/states';
import { localToday } from '../../units/format';

// Without its code generator, which a page that allows no foreign scripts refuses anyway.
z.config({ jitless: true });

// Only what can be said without the server: that something is there. The rules themselves are the server's.
const form = z.object({
  ownerName: z.string().trim().min(1, 'Who brings it? A name or a boat will do.'),
  ownerContact: z.string(),
  machineName: z.string().trim().min(1, 'What is it off? Say the machine and where it stands.'),
  stampedNumber: z.string(),
  complaint: z.string().trim().min(1, 'What does the owner say it does?'),
  promisedDay: z.iso.date('Choose the day.'),
});
type Form = z.infer<typeof form>;

const addDays = (iso: string, days: number): string => {
  const date = new Date(`${iso}T12:00Z`);
  date.setUTCDate(date.getUTCDate() + days);
  return date.toISOString().slice(0, 10);
};

interface Kept {
  values: Partial<Form>;
  trayId: string;
  entryId: string;
}

/** A carburetor comes in: five answers and it has a number. What is typed survives a reload. */
export function CheckInPage() {
  const bench = useBench();
  // The shop's usual day is part of the form; when it cannot be had, the form is there without it.
  return bench.isPending ? <Loading what="the check-in" /> : <CheckInForm promisedDays={bench.data?.promisedDays} />;
}

function CheckInForm({ promisedDays }: { promisedDays: number | undefined }) {
  const person = usePerson();
  const key = `draft:${person.id}:check-in`;
  const [kept] = useState<Kept>(() => {
    const fresh: Kept = { values: {}, trayId: uuidv7(), entryId: uuidv7() };
    try {
      return { ...fresh, ...(JSON.parse(localStorage.getItem(key) ?? '{}') as Partial<Kept>) };
    } catch {
      return fresh;
    }
  });
  const owners = useQuery({ queryKey: ['owners'], queryFn: () => ask(api.GET('/api/owners')) });
  const take = useTakeTray();
  const navigate = useNavigate();
  const [trouble, setTrouble] = useState('');
  const { register, handleSubmit, setError, getValues, control, formState } = useForm<Form>({
    resolver: zodResolver(form),
    defaultValues: {
      ownerName: '',
      ownerContact: '',
      machineName: '',
      stampedNumber: '',
      complaint: '',
      promisedDay: promisedDays === undefined ? '' : addDays(localToday(), promisedDays),
      ...kept.values,
    },
  });

  const values = { ...getValues(), ...useWatch({ control }) };
  const sending = useRef(false);
  useEffect(() => {
    if (!sending.current) localStorage.setItem(key, JSON.stringify({ ...kept, values }));
  });

  const owner = owners.data?.find((o) => o.name.toLowerCase() === values.ownerName.trim().toLowerCase());
  const submit = async (filled: Form): Promise<void> => {
    setTrouble('');
    sending.current = true;
    try {
      const tray = await ask(
        api.POST('/api/trays', {
          body: { trayId: kept.trayId, entryId: kept.entryId, family: 'floatBowl', ...filled },
        }),
      );
      localStorage.removeItem(key);
      take(tray);
      void navigate(trayPath(tray.number, 'kits'));
    } catch (error) {
      sending.current = false;
      const problem = problemOf(error);
      const fields = Object.entries(problem.errors);
      fields.forEach(([field, messages]) => setError(field as Path<Form>, { message: messages[0] ?? '' }));
      if (fields.length === 0) setTrouble(`${problem.title} ${problem.detail}`);
    }
  };
  const problem = (field: keyof Form): string | undefined => formState.errors[field]?.message;

  return (
    <div className="p-3 lg:px-5 lg:pb-5">
      <h1 className="mb-1 text-[1.4375rem]">Check in a carburetor</h1>
      <p className="text-mute mb-3">It gets a tray and a number. Five answers are enough to start.</p>
      <form
        noValidate
        onSubmit={(event) => void handleSubmit(submit)(event)}
        className="bg-sheet border-line grid max-w-4xl gap-x-6 gap-y-4 rounded-xl border p-5 md:grid-cols-2"
      >
        <div>
          <TextField
            label="Owner"
            hint="A person, a boat or a stall"
            list="owners"
            problem={problem('ownerName')}
            autoFocus
            {...register('ownerName')}
          />
          <datalist id="owners">
            {owners.data?.map((o) => (
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
            problem={problem('machineName')}
            {...register('machineName')}
          />
          <datalist id="machines">
            {owner?.machines.map((m) => (
              <option key={m} value={m} />
            ))}
          </datalist>
        </div>
        <TextField
          label="Stamped number"
          hint="As read off the carburetor; 0 and O, 5 and S may be confused later. May stay empty"
          className="num"
          problem={problem('stampedNumber')}
          {...register('stampedNumber')}
        />
        <div className="md:col-span-2">
          <TextArea
            label="What the owner says"
            hint="What it does, since when, how long it stood"
            problem={problem('complaint')}
            {...register('complaint')}
          />
        </div>
        <TextField
          label="Promised for"
          type="date"
          min={localToday()}
          className="num"
          problem={problem('promisedDay')}
          {...register('promisedDay')}
        />
        <div className="grid content-start gap-1">
          <span className="font-[600]">Carburetor</span>
          <p className="flex min-h-11 items-center">Float bowl</p>
        </div>
        {trouble && (
          <div className="md:col-span-2">
            <Notice title={trouble}>Everything typed here is kept on this device.</Notice>
          </div>
        )}
        <div className="flex flex-wrap items-center gap-4 md:col-span-2">
          <Button type="submit" look="hands" disabled={formState.isSubmitting}>
            Give it a tray
          </Button>
          <p className="text-unsure font-[550]">
            Oil over full or smelling of fuel? Do not run the engine: change the oil first.
          </p>
        </div>
      </form>
    </div>
  );
}
