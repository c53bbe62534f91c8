import type { NumberCandidate } from '../../api/client';
import { ChooseSheet } from './ChooseSheet';

const matchWord: Record<NumberCandidate['reading']['match'], string> = {
  exact: 'this very number',
  misread: 'reads like it',
  part: 'holds what was read',
  near: 'close to it',
  none: '',
};

const markWord: Record<NumberCandidate['reading']['characters'][number]['mark'], string> = {
  same: '',
  looksAlike: 'looks alike',
  unreadable: 'could not be read',
  different: 'another character',
  notRead: 'was not read',
  extra: 'not on record',
};

interface Props {
  title: string;
  candidates: NumberCandidate[];
  none: string;
  chosen: string | undefined;
  mayChoose: boolean;
  onChoose: (code: string) => void;
}

/** Numbers on record that the one read may be, the characters that differ lit up. */
export function Numbers({ title, candidates, none, chosen, mayChoose, onChoose }: Props) {
  return (
    <div>
      <h3 className="text-mute text-note font-strong">{title}</h3>
      {candidates.length === 0 && <p className="mt-1">{none}</p>}
      <ul aria-label={title}>
        {candidates.map((candidate) => (
          <li
            key={candidate.maker + candidate.reading.onRecord}
            className="border-line flex flex-wrap items-center gap-x-4 gap-y-1 border-t py-2 first:border-t-0"
          >
            <Laid reading={candidate.reading} />
            <p className="min-w-0 flex-1 basis-52 leading-snug">
              <span className="font-strong">{candidate.maker}</span>{' '}
              {candidate.specCode ? `sheet ${candidate.specCode}` : 'no spec sheet'}
              <span className="text-mute block">
                {matchWord[candidate.reading.match]}
                {candidate.items > 0 && ` · ${candidate.items} listed for it`}
              </span>
            </p>
            {candidate.specCode && (
              <ChooseSheet
                code={candidate.specCode}
                what={`${candidate.reading.onRecord}, ${matchWord[candidate.reading.match]}`}
                chosen={candidate.specCode === chosen}
                mayChoose={mayChoose}
                onChoose={onChoose}
              />
            )}
          </li>
        ))}
      </ul>
    </div>
  );
}

type Place = NumberCandidate['reading']['characters'][number];

/** The places of a number with the separators that stand between its characters on record. */
function withSeparators({ onRecord, characters }: NumberCandidate['reading']): (Place | string)[] {
  const places: (Place | string)[] = [];
  const left = [...characters];
  for (const sign of onRecord.toUpperCase()) {
    if (!/[\p{L}\p{N}]/u.test(sign)) {
      places.push(sign);
      continue;
    }
    while (left[0] && left[0].onRecord === null) places.push(...left.splice(0, 1));
    places.push(...left.splice(0, 1));
  }
  return [...places, ...left];
}

/** The number on record over what was read, place by place. */
function Laid({ reading }: { reading: NumberCandidate['reading'] }) {
  const differing = reading.characters.filter((character) => character.mark !== 'same');
  return (
    <div className="num basis-56 leading-none">
      <span className="sr-only">
        {reading.onRecord}
        {differing.map((c) => `, ${c.onRecord ?? c.read ?? ''} ${markWord[c.mark]}`)}
      </span>
      <span aria-hidden className="inline-flex">
        {withSeparators(reading).map((place, at) =>
          typeof place === 'string' ? (
            <span key={at} className="py-0.5 text-heading">
              {place}
            </span>
          ) : (
            <span
              key={at}
              title={markWord[place.mark]}
              className={`grid min-w-[0.9rem] rounded-sm text-center text-heading font-bold ${
                place.mark === 'same' ? '' : place.mark === 'notRead' ? 'bg-steel' : 'bg-unsure-soft text-unsure'
              }`}
            >
              <span className="py-0.5">{place.onRecord ?? '·'}</span>
              <span className="text-note font-medium">{place.mark === 'same' ? ' ' : (place.read ?? '–')}</span>
            </span>
          ),
        )}
      </span>
    </div>
  );
}
