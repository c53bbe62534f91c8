import type { StripPart } from '../api/client';
import { Button } from '../ui/button';
import { Choice } from '../ui/choice';
import { WayDrawing } from './WayDrawing';

interface Props {
  part: StripPart;
  label: string;
  value: string;
  problem?: string | undefined;
  disabled?: boolean;
  onChange: (way: string) => void;
  /** Where Enter leads once it is chosen. */
  onEnter: (from: HTMLElement) => void;
  /** Nobody saw which way round it was. */
  onNotSeen?: () => void;
}

/** Which way round, chosen from a drawing of each. */
export function WayChoice({ part, label, value, problem, disabled, onChange, onEnter, onNotSeen }: Props) {
  const group = part.wayGroup;
  if (!group) return null;
  return (
    <div className="grid gap-1">
      <Choice
        label={label}
        value={value}
        options={part.ways.map((way) => ({
          value: way.key,
          label: way.label,
          picture: <WayDrawing group={group} way={way.key} />,
        }))}
        beside
        disabled={disabled}
        invalid={problem !== undefined}
        onChange={onChange}
        onEnter={onEnter}
        onClear={() => onChange('')}
      />
      {onNotSeen && (
        <Button className="justify-self-start" data-not-seen onClick={onNotSeen}>
          Not seen which way
        </Button>
      )}
      {problem && (
        <p role="alert" className="text-bad font-medium">
          {problem}
        </p>
      )}
    </div>
  );
}
