import type { ReactNode } from 'react';
import { z } from 'zod';
import {
  choices,
  chokeWord,
  engineWord,
  familyWord,
  fuelKindWord,
  occursWord,
  oilLevelWord,
  whoseWord,
} from '../../shell/words';
import { Choice } from '../../ui/choice';
import { TextField } from '../../ui/field';

const stood = { days: 'Days', weeks: 'Weeks', seasonOrMore: 'A season or more' };
const worked = { nobody: 'Nobody', owner: 'The owner', anotherShop: 'Another shop' };
const oils = { fine: 'At its level', fuelInIt: 'Over full or smells of fuel' };
const fuels = { fresh: 'Fresh', old: 'Old' };

/** A question that one of a few words answers. */
const asked = <W extends string, N extends string>(label: string, words: Record<W, string>, none: N) => ({
  label,
  words,
  none,
  /** What an answer may be: one of the words, or that nothing was said. */
  answer: z.enum([none, ...(Object.keys(words) as W[])] as [N | W, ...(N | W)[]]),
});

/** What is asked of the story, by the name it has in what is sent. */
export const questions = {
  stoodFor: asked('It stood for', stood, 'notSaid'),
  workedOnBy: asked('Worked on by', worked, 'notSaid'),
  fuel: asked('Fuel in the tank', fuels, 'notSaid'),
  oil: asked('Oil, looked at and smelt', oils, 'notLooked'),
  occurs: asked('When it does it', occursWord, 'notSaid'),
  oilThen: asked('Oil, when last read', oilLevelWord, 'notSaid'),
  whose: asked('Whose machine', whoseWord, 'notSaid'),
  fuelKind: asked('Kind of fuel', fuelKindWord, 'notSaid'),
};
export type QuestionName = keyof typeof questions;
export type Answer<N extends QuestionName> = z.infer<(typeof questions)[N]['answer']>;

/** What is asked of the carburetor; the sheet of a stamped number answers it too. */
export const traits = {
  family: { label: 'Carburetor', words: familyWord },
  engine: { label: 'Engine', words: engineWord },
  choke: { label: 'Choke', words: chokeWord },
};
export type Trait = keyof typeof traits;

/** Numbers of the story, each may be left out. */
export const numbers = {
  failsAfterMin: 'Dies after, minutes',
  tankThen: 'Tank then, litres',
  tankNow: 'Tank now, litres',
  fuelAgeDays: 'Fuel’s age, days',
  ageYears: 'Machine’s age, years',
  hours: 'Hours it has run',
};
export type NumberName = keyof typeof numbers;

/** A number as people write it; null when there is none, or it is no plain one. */
export const amount = (text: string): number | null => {
  const value = Number(text.trim().replace(',', '.'));
  return text.trim() === '' || !Number.isFinite(value) || value < 0 ? null : value;
};

/** Litres as they are typed, in millilitres. */
export const litres = (text: string): number | null => {
  const value = amount(text);
  return value === null ? null : value * 1000;
};

export const NO_NUMBER = 'Enter a plain number.';
export const isNumber = (text: string): boolean => text.trim() === '' || amount(text) !== null;

/** A question and its answers. */
export function Ask({ what, children }: { what: string; children: ReactNode }) {
  return (
    <div className="grid content-start gap-1">
      <span className="font-strong">{what}</span>
      {children}
    </div>
  );
}

/** A question of the story. A second touch on the answer takes it back. */
export function Question<N extends QuestionName>({
  name,
  value,
  onAnswer,
}: {
  name: N;
  value: Answer<N>;
  onAnswer: (name: N, answer: Answer<N>) => void;
}) {
  const { label, none } = questions[name];
  const words: Record<string, string> = questions[name].words;
  return (
    <Ask what={label}>
      <Choice<string>
        label={label}
        value={value === none ? '' : value}
        options={choices(words)}
        onChange={(answer) => onAnswer(name, answer as Answer<N>)}
        onClear={() => onAnswer(name, none as Answer<N>)}
        small
      />
    </Ask>
  );
}

/** A number of the story; the rest is the box’s. */
export function NumberBox({ of, ...box }: { of: NumberName } & Omit<Parameters<typeof TextField>[0], 'label'>) {
  return <TextField label={numbers[of]} inputMode="decimal" className="num" {...box} />;
}
