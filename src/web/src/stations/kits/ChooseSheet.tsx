import { Check } from 'lucide-react';
import { BareButton } from '../../ui/button';

interface Props {
  code: string;
  /** What makes it a candidate, for those who cannot see the row. */
  what: string;
  chosen: boolean;
  mayChoose: boolean;
  onChoose: (code: string) => void;
}

/** Takes a spec sheet for the tray; pressed when it is the tray's own. */
export function ChooseSheet({ code, what, chosen, mayChoose, onChoose }: Props) {
  return (
    <BareButton
      aria-pressed={chosen}
      aria-label={`${chosen ? 'It is' : 'Take'} ${code}: ${what}`}
      disabled={!mayChoose}
      onClick={() => onChoose(code)}
      className={`border-line-strong aria-pressed:border-ink aria-pressed:bg-ink aria-pressed:text-sheet inline-flex min-h-11
        min-w-28 items-center justify-center gap-1.5 rounded-lg border-[1.5px] px-3 font-strong
        aria-disabled:opacity-60 aria-pressed:aria-disabled:opacity-100`}
    >
      {chosen && <Check aria-hidden size={18} />}
      {chosen ? `It is ${code}` : `Take ${code}`}
    </BareButton>
  );
}
