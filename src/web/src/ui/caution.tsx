import { TriangleAlert } from 'lucide-react';
import type { Line } from '../api/client';

/** What could hurt here and what to do about it: short, always in sight, never clicked away. */
export function CautionNote({ caution }: { caution: NonNullable<Line['caution']> }) {
  return (
    <p className="bg-unsure-soft text-unsure flex gap-2.5 px-4 py-2 leading-snug font-medium">
      <TriangleAlert aria-label="Caution" size={20} className="mt-0.5 shrink-0" />
      {caution.text}
    </p>
  );
}
