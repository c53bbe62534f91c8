import { useQuery } from '@tanstack/react-query';
import { useDeferredValue, useMemo } from 'react';
import { api, ask, type MarksNote, type Trait, type Tray } from '../../api/client';
import { useKept } from '../../outbox/drafts';
import { useRecord } from '../../shell/useRecord';
import { useAllowed, useOff, usePerson } from '../../session/session';
import type { TrayWrite } from '../../tray/useTrayWrite';
import { LinkButton } from '../../ui/button';
import { TextField } from '../../ui/field';
import { Notice, Trouble } from '../../ui/states';
import { DatesRead } from './DatesRead';
import { MeasureIt } from './MeasureIt';
import { Numbers } from './Numbers';
import { SheetList } from './SheetList';
import { useFittingWrite } from './useFittingWrite';
import { keys } from '../../api/keys';

type Answers = Partial<Record<Trait, string>>;

/** The spec sheet by whatever is legible: the stamp, the engine's plate, or neither. */
export function IdentifyStep({ tray, writing }: { tray: Tray; writing: TrayWrite }) {
  const person = usePerson();
  const work = useFittingWrite(writing);
  const mayMake = useAllowed('makeSheets');
  const mayChoose = useOff(tray) === undefined && !work.busy;
  const key = `${person.id}:${tray.number}`;
  const [stamped, keepStamped] = useKept(`${key}:stamp`, tray.facts.stampedNumber);
  const [date, keepDate, dropDate] = useKept(`${key}:date`, tray.marks.dateCode);
  const [plate, keepPlate, dropPlate] = useKept(`${key}:plate`, tray.marks.plate);
  const marks = useRecord<MarksNote>(tray.number);
  // What was read stays with the tray as soon as the hand leaves the box.
  const keepMarks = async (): Promise<void> => {
    const read = { dateCode: date.trim(), plate: plate.trim() };
    if (!mayChoose || (read.dateCode === tray.marks.dateCode && read.plate === tray.marks.plate)) return;
    if (!(await marks.record({ kind: 'marks', ...read }))) return;
    dropDate();
    dropPlate();
  };
  // What kind it is was seen at check-in.
  const atFirst = useMemo<Answers>(() => ({ family: tray.facts.family }), [tray.facts.family]);
  const [answers, keepAnswers] = useKept(`${key}:traits`, atFirst);
  const asked = useDeferredValue({ stamped, date, plate, answers });
  const found = useQuery({
    queryKey: keys.identify(asked),
    queryFn: () =>
      ask(
        api.GET('/api/identify', {
          params: {
            query: {
              stamped: asked.stamped,
              date: asked.date,
              plate: asked.plate,
              answer: Object.entries(asked.answers).map(([trait, value]) => `${trait}=${value}`),
            },
          },
        }),
      ),
    placeholderData: (before) => before,
  });
  const choose = (code: string): void => {
    if (code !== tray.spec?.code) void work.chooseSpec(code, stamped);
  };
  const view = found.data;
  return (
    <div className="grid gap-4">
      {work.problem && <Notice title={work.problem.title}>{work.problem.detail}</Notice>}
      <div className="grid gap-x-4 gap-y-3 sm:grid-cols-3">
        <TextField
          label="Stamped number"
          hint="? for what cannot be read"
          className="num text-title"
          value={stamped}
          maxLength={40}
          onChange={(e) => keepStamped(e.target.value)}
        />
        <TextField
          label="Date code"
          hint="Stamped beside it, if there is one"
          className="num text-title"
          value={date}
          maxLength={20}
          problem={marks.problem?.errors['note.dateCode']?.[0]}
          onChange={(e) => keepDate(e.target.value)}
          onBlur={() => void keepMarks()}
        />
        <TextField
          label="Engine plate"
          hint="Model/specification"
          className="num text-title"
          value={plate}
          maxLength={40}
          problem={marks.problem?.errors['note.plate']?.[0]}
          onChange={(e) => keepPlate(e.target.value)}
          onBlur={() => void keepMarks()}
        />
      </div>
      {found.isError && !view && <Trouble error={found.error} retry={() => void found.refetch()} />}
      {view && (
        <>
          <DatesRead dates={view.dates} />
          {stamped.trim() !== '' && (
            <Numbers
              title="By the stamp"
              candidates={view.stamped}
              none="No number on record is like this. Check the stamp, try the engine plate, or measure it."
              chosen={tray.spec?.code}
              mayChoose={mayChoose}
              onChoose={choose}
            />
          )}
          {plate.trim() !== '' && (
            <Numbers
              title="By the engine plate"
              candidates={view.plates}
              none="No plate on record is like this."
              chosen={tray.spec?.code}
              mayChoose={mayChoose}
              onChoose={choose}
            />
          )}
          <MeasureIt
            open={view.stamped.length === 0 && view.plates.length === 0}
            found={view.measured}
            problems={view.problems}
            sheets={view.sheets}
            answers={answers}
            onAnswer={keepAnswers}
            chosen={tray.spec?.code}
            mayChoose={mayChoose}
            onChoose={choose}
          />
          {mayMake && tray.facts.waitsFor !== 'handedBack' && !tray.spec && (
            <p className="flex flex-wrap items-center gap-x-3">
              <span>No sheet is right for this one?</span>
              <LinkButton to={`/sheets/new?tray=${tray.number}`}>Make a sheet for it</LinkButton>
            </p>
          )}
          <SheetList sheets={view.sheets} chosen={tray.spec?.code} mayChoose={mayChoose} onChoose={choose} />
        </>
      )}
    </div>
  );
}
