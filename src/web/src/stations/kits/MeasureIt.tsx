import { ChevronDown } from 'lucide-react';
import { Collapsible } from 'radix-ui';
import { useState } from 'react';
import type { IdentifyView, Trait, TraitQuestion } from '../../api/client';
import { useUnits } from '../../session/session';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { TextField } from '../../ui/field';
import { percent, say, sign } from '../../units/format';
import { ChooseSheet } from './ChooseSheet';

interface Props {
  open: boolean;
  found: IdentifyView['measured'];
  problems: IdentifyView['problems'];
  sheets: IdentifyView['sheets'];
  answers: Partial<Record<Trait, string>>;
  onAnswer: (answers: Partial<Record<Trait, string>>) => void;
  chosen: string | undefined;
  mayChoose: boolean;
  onChoose: (code: string) => void;
}

const SHOWN = 6;

/** No number to be read: what to measure next, and which sheets are left. */
export function MeasureIt({ open, found, problems, sheets, answers, onAnswer, chosen, mayChoose, onChoose }: Props) {
  const [wanted, setWanted] = useState<boolean | null>(null);
  const answered = Object.keys(answers).length;
  const isOpen = wanted ?? (open || answered > 1);
  const next = found.questions.find((q) => q.trait === found.next);
  const rest = found.questions.filter((q) => q !== next);
  const answer = (trait: Trait, value: string): void => {
    const others = Object.fromEntries(Object.entries(answers).filter(([asked]) => asked !== trait));
    onAnswer(value === '' ? others : { ...others, [trait]: value });
  };
  return (
    <Collapsible.Root open={isOpen} onOpenChange={setWanted} className="border-line border-t pt-1">
      <Collapsible.Trigger asChild>
        <button type="button" className="flex min-h-11 w-full items-center gap-2 text-left text-lead font-bold">
          No number legible? Measure it
          <ChevronDown aria-hidden size={18} className={isOpen ? 'rotate-180' : ''} />
        </button>
      </Collapsible.Trigger>
      <Collapsible.Content className="grid gap-x-6 gap-y-3 md:grid-cols-2">
        <div className="grid content-start gap-3">
          {next ? (
            <div className="border-dawn border-l-4 pl-3">
              <p className="text-mute text-note">
                Tells most now: about {Math.max(1, Math.round(next.sheetsLeft))} of{' '}
                {Math.max(1, found.candidates.length)} sheets would be left
              </p>
              <Question question={next} value={answers[next.trait]} problem={problems[next.trait]} onAnswer={answer} />
            </div>
          ) : (
            <p className="border-line border-l-4 pl-3">Nothing more to measure would narrow it.</p>
          )}
          {rest.map((question) => (
            <Question
              key={question.trait}
              question={question}
              value={answers[question.trait]}
              problem={problems[question.trait]}
              onAnswer={answer}
            />
          ))}
        </div>
        <div>
          <div className="flex min-h-11 items-center justify-between gap-2">
            <h3 className="text-mute text-note font-strong">
              {answered === 0
                ? `${sheets.length} sheets on file`
                : `${found.candidates.length} ${found.candidates.length === 1 ? 'sheet is' : 'sheets are'} left`}
            </h3>
            {answered > 0 && (
              <Button look="quiet" onClick={() => onAnswer({})}>
                Begin again
              </Button>
            )}
          </div>
          {answered > 0 && (
            <ul aria-label="By its measures">
              {found.candidates.slice(0, SHOWN).map((candidate) => (
                <li key={candidate.specCode} className="border-line grid gap-1 border-t py-2">
                  <div className="flex flex-wrap items-center gap-3">
                    <span className="num w-14 text-title font-bold">{percent(candidate.share)}</span>
                    <span className="min-w-0 flex-1">
                      {sheets.find((sheet) => sheet.code === candidate.specCode)?.maker} {candidate.specCode}
                    </span>
                    <ChooseSheet
                      code={candidate.specCode}
                      what={`by its measures, ${percent(candidate.share)}`}
                      chosen={candidate.specCode === chosen}
                      mayChoose={mayChoose}
                      onChoose={onChoose}
                    />
                  </div>
                  <Told agrees={candidate.agrees} differs={candidate.differs} />
                </li>
              ))}
            </ul>
          )}
          {answered > 0 && found.candidates.length > SHOWN && (
            <p className="text-mute">and {found.candidates.length - SHOWN} less likely</p>
          )}
        </div>
      </Collapsible.Content>
    </Collapsible.Root>
  );
}

function Told({ agrees, differs }: Pick<Props['found']['candidates'][number], 'agrees' | 'differs'>) {
  const units = useUnits();
  return (
    <p className="text-mute leading-snug">
      {agrees.map((s) => say(s, units)).join(', ')}
      {differs.length > 0 && (
        <span className="text-bad">
          {agrees.length > 0 && '; '}
          {differs.map((s) => say(s, units)).join(', ')}
        </span>
      )}
    </p>
  );
}

function Question({
  question,
  value,
  problem,
  onAnswer,
}: {
  question: TraitQuestion;
  value: string | undefined;
  problem: string | undefined;
  onAnswer: (trait: Trait, value: string) => void;
}) {
  const units = useUnits();
  if (question.choices.length > 0) {
    return (
      <div className="grid gap-1">
        <p className="font-strong">{question.label}</p>
        <Choice
          label={question.label}
          value={question.choices.find((c) => c.value.toLowerCase() === value?.toLowerCase())?.value ?? ''}
          options={question.choices}
          onChange={(next) => onAnswer(question.trait, next)}
          onClear={() => onAnswer(question.trait, '')}
          slim
        />
      </div>
    );
  }
  return (
    <TextField
      label={question.label}
      hint={question.how}
      problem={problem}
      placeholder={sign('length', units)}
      className="num max-w-40 text-title"
      inputMode="decimal"
      value={value ?? ''}
      maxLength={20}
      onChange={(e) => onAnswer(question.trait, e.target.value)}
    />
  );
}
