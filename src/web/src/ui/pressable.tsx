import type { ReactNode } from 'react';

interface Props {
  label: string;
  onPress: () => void;
  /** Whether it is the one that is picked. */
  pressed?: boolean;
  opacity?: number;
  children: ReactNode;
}

/** A piece of a drawing that is pressed like any button: by pointer, by touch, or by Tab and Enter or Space. */
export function Pressable({ label, onPress, pressed, opacity, children }: Props) {
  return (
    <g
      role="button"
      tabIndex={0}
      aria-label={label}
      aria-pressed={pressed}
      opacity={opacity}
      className="focus-visible:outline-dawn cursor-pointer outline-offset-2 focus-visible:outline-3"
      onClick={onPress}
      onKeyDown={(event) => {
        if (event.key !== 'Enter' && event.key !== ' ') return;
        event.preventDefault();
        onPress();
      }}
    >
      <title>{label}</title>
      {children}
    </g>
  );
}
