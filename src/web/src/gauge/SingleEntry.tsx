import type { EntryField } from '../api/client';
import { useUnits } from '../session/session';
import { Choice } from '../ui/choice';
import { hasLookDrawing, LookDrawing } from '../parts/LookDrawing';
import { EntryBox } from './EntryBox';
import { MinutesClock } from './MinutesClock';
import { groupOf, standingTyped, type EntryProps } from './entry';

/** Where a bare number says too little, however crowded the line is. */
const unitsMatter = new Set<EntryField['dimension']>(['time', 'temperature', 'pressure', 'mass']);

/** The boxes of one way of measuring. */
export function SingleEntry({ state, line, way, disabled, onEnter, describedBy }: EntryProps) {
  const units = useUnits();
  const standing = state.draft.alone ? {} : standingTyped(line, units).values;
  const group = groupOf(state, line, way);
  if (!group) return null;
  const value = (field: EntryField): string => state.draft.values[field.name] ?? standing[field.name] ?? '';
  const setOne = (name: string, text: string): void =>
    state.change({ group: group.name, values: { ...state.draft.values, [name]: text } });
  const set = (field: EntryField, text: string): void => setOne(field.name, text);
  // Moments that are noted while the clock goes on.
  const marks = group.fields.filter(
    (field) => field.kind === 'measure' && field.dimension === 'minutes' && field.detail,
  );
  const noted = (field: EntryField): boolean =>
    !field.whenNoted || [value(field), state.errors[field.name]].some(Boolean);
  return (
    <div>
      <div className="flex flex-wrap items-end gap-1.5">
        {group.fields
          .filter((field) => field.kind === 'measure' && noted(field))
          .map((field) => (
            <EntryBox
              key={field.name}
              field={field}
              label={`${line.label}, ${field.label}`}
              value={value(field)}
              problem={state.errors[field.name]}
              disabled={disabled}
              describedBy={describedBy}
              bare={group.fields.length > 2 && !unitsMatter.has(field.dimension)}
              skip={field.detail}
              onChange={(text) => set(field, text)}
              onEnter={onEnter}
              onEscape={state.drop}
              onLeave={field.optional ? undefined : () => state.leave(field.name)}
            />
          ))}
        {group.fields
          .filter((field) => field.kind === 'measure' && field.dimension === 'minutes' && !field.detail)
          .map((field) => (
            <MinutesClock
              key={field.name}
              tray={state.tray}
              line={line.key}
              name={line.label}
              disabled={disabled}
              marks={marks}
              onMark={(name, minutes) => setOne(name, minutes)}
              onMinutes={(minutes) => set(field, minutes)}
            />
          ))}
      </div>
    </div>
  );
}

/** The answers of a look with their drawings, where it has any. */
const drawn = (key: string, choices: EntryField['choices']) => {
  const look = key.slice(key.indexOf('/') + 1);
  return choices.map((choice) =>
    hasLookDrawing(look, choice.value)
      ? { ...choice, picture: <LookDrawing look={look} seen={choice.value} /> }
      : choice,
  );
};

/** What is chosen from a few words, across the whole line: choices are wide. A line that asks for nothing else is recorded by the choice. */
export function ChoiceEntry({ state, line, way, disabled, onEnter, onChosen }: EntryProps & { onChosen: () => void }) {
  const standing = state.draft.alone ? {} : (line.standing?.typed.values ?? {});
  const group = groupOf(state, line, way);
  const fields = group?.fields.filter((field) => field.kind === 'choice') ?? [];
  if (!group || fields.length === 0) return null;
  return (
    <div className="mt-1.5 flex flex-wrap gap-x-6 gap-y-1.5">
      {fields.map((field) => (
        <Choice
          key={field.name}
          label={`${line.label}, ${field.label}`}
          value={state.draft.values[field.name] ?? standing[field.name] ?? ''}
          {...(line.form.oneTouch
            ? // Seen again is seen anew.
              {
                records: true,
                onClear: () => void state.answer({ [field.name]: standing[field.name] ?? '' }).then(onChosen),
              }
            : { onEnter })}
          options={line.form.oneTouch ? drawn(line.key, field.choices) : field.choices}
          onChange={(choice) =>
            line.form.oneTouch
              ? void state.answer({ [field.name]: choice }).then(onChosen)
              : state.change({ group: group.name, values: { ...state.draft.values, [field.name]: choice } })
          }
          invalid={field.name in state.errors}
          disabled={disabled}
          small
        />
      ))}
    </div>
  );
}
