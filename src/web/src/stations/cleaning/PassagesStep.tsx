import { Check } from 'lucide-react';
import { BareButton } from '../../ui/button';
import { useState } from 'react';
import { useSearchParams } from 'react-router';
import { useLed } from '../../ui/useLed';
import { PassageMap } from './PassageMap';
import type { StepProps } from './step';

/** Every passage: cleaned, and air seen where it has to come out. A press does not wait for the one before: none is lost. */
export function PassagesStep({ tray, view, mayRecord, record }: StepProps) {
  const { passages } = view.plan;
  // What somebody was sent to by the name of a part.
  const part = useSearchParams()[0].get('label')?.toLowerCase();
  const [picked, setPicked] = useState<string | null>(
    () =>
      (part &&
        passages.find(({ passage }) => `${passage.label} ${passage.into} ${passage.exit}`.toLowerCase().includes(part))
          ?.passage.key) ??
      null,
  );
  const next = picked ?? passages.find((one) => one.isOpen)?.passage.key ?? null;
  const list = useLed<HTMLOListElement>({ step: next, isDone: next === null });
  return (
    <div className="grid items-start gap-x-5 gap-y-3 xl:grid-cols-[minmax(0,6fr)_minmax(0,7fr)]">
      <PassageMap tray={tray} passages={passages} picked={next} onPick={setPicked} />
      <ol ref={list}>
        {passages.map(({ passage, cleaned, airSeen }, i) => (
          <li
            key={passage.key}
            aria-label={passage.label}
            className={`border-line border-t py-1.5 ${passage.key === next ? 'bg-dawn-soft -mx-2 px-2' : ''}`}
          >
            <p className="leading-snug">
              <span className="text-lead font-bold">
                {i + 1}. {passage.label}
              </span>
              {passage.gentle && <span className="text-unsure font-bold"> gently: a check valve sits in it</span>}
              <span className="text-mute block">
                in at {passage.into}, out at {passage.exit}
              </span>
            </p>
            <div className="mt-1 flex flex-wrap gap-2">
              <Toggle
                on={cleaned}
                label="Cleaned"
                name={passage.label}
                disabled={!mayRecord}
                onClick={() => void record({ kind: 'passage', passage: passage.key, cleaned: !cleaned, airSeen })}
              />
              <Toggle
                on={airSeen}
                asked={mayRecord && passage.key === next && !airSeen}
                label="Air seen at the exit"
                name={passage.label}
                disabled={!mayRecord}
                onClick={() => {
                  setPicked(null);
                  // Air that comes out at the far end has found it clear.
                  void record({
                    kind: 'passage',
                    passage: passage.key,
                    cleaned: cleaned || !airSeen,
                    airSeen: !airSeen,
                  });
                }}
              />
            </div>
          </li>
        ))}
      </ol>
    </div>
  );
}

function Toggle({
  on,
  asked = false,
  label,
  name,
  disabled,
  onClick,
}: {
  on: boolean;
  /** What is pressed next. */
  asked?: boolean;
  label: string;
  name: string;
  disabled: boolean;
  onClick: () => void;
}) {
  return (
    <BareButton
      aria-pressed={on}
      aria-label={`${label}: ${name}`}
      disabled={disabled}
      data-warm={asked || undefined}
      onClick={onClick}
      className={`aria-pressed:border-ok aria-pressed:bg-ok-soft aria-pressed:text-ok inline-flex min-h-11 items-center
        gap-1.5 rounded-lg border-[1.5px] px-3
        ${asked ? 'border-dawn bg-dawn text-dawn-ink font-bold' : 'border-line-strong font-medium'}`}
    >
      {on && <Check aria-hidden size={18} strokeWidth={3} />} {label}
    </BareButton>
  );
}
