import { ToggleGroup } from 'radix-ui';
import type { StripPart } from '../api/client';
import { WayDrawing } from './WayDrawing';

interface Props {
  part: StripPart;
  label: string;
  value: string;
  problem?: string | undefined;
  onChange: (way: string) => void;
}

/** Which way round, chosen from a drawing of each. */
export function WayChoice({ part, label, value, problem, onChange }: Props) {
  if (!part.wayGroup) return null;
  return (
    <div className="grid gap-1">
      <ToggleGroup.Root
        type="single"
        aria-label={label}
        value={value}
        onValueChange={onChange}
        className={`flex flex-wrap gap-2 ${problem ? 'outline-bad rounded-lg outline-2' : ''}`}
      >
        {part.ways.map((way) => (
          <ToggleGroup.Item
            key={way.key}
            value={way.key}
            className="border-line-strong data-[state=on]:bg-ink data-[state=on]:text-sheet data-[state=on]:border-ink flex min-h-16 items-center gap-2 rounded-lg border-[1.5px] px-3 py-1 text-left leading-tight font-medium"
          >
            <WayDrawing group={part.wayGroup ?? ''} way={way.key} />
            <span className="max-w-36">{way.label}</span>
          </ToggleGroup.Item>
        ))}
      </ToggleGroup.Root>
      {problem && (
        <p role="alert" className="text-bad font-medium">
          {problem}
        </p>
      )}
    </div>
  );
}
