import type { ReactNode } from 'react';
import type { Line } from '../api/client';
import { Pressable } from '../ui/pressable';

interface Props {
  line: Line | undefined;
  /** Leads to the line; without it nothing is pressed. */
  onPick: ((line: Line) => void) | undefined;
  children: ReactNode;
}

/** A part of a cutaway that leads to its gauge line. */
export function DrawnPart({ line, onPick, children }: Props) {
  if (!line || !onPick) return <g>{children}</g>;
  return (
    <Pressable label={`${line.label}: ${line.judgement.word}`} onPress={() => onPick(line)}>
      {children}
    </Pressable>
  );
}
