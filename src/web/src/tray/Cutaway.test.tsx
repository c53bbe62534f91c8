import { render } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { Tray } from '../api/client';
import { PersonProvider } from '../session/session';
import { Cutaway, type Suspect } from './Cutaway';

const person = {
  id: 'ilse',
  userName: 'ilse',
  displayName: 'Ilse',
  role: 'lead',
  may: [],
  units: 'metric' as const,
  pins: '',
};
const tray = { lines: [] } as unknown as Tray;
const draw = (suspects: Suspect[]) =>
  render(
    <PersonProvider person={person}>
      <Cutaway tray={tray} suspects={suspects} onPick={() => undefined} />
    </PersonProvider>,
  );

const suspect = (id: string, circuit: string, probability: number): Suspect => ({
  id,
  circuit,
  label: id,
  probability,
});

describe('the cutaway', () => {
  it('marks each suspect that has a place, and leaves out what is not in the drawing', () => {
    const { container, getByRole } = draw([
      suspect('idle-jet-blocked', 'idle', 0.54),
      suspect('coil-heat-fade', 'engine', 0.2),
    ]);
    expect([...container.querySelectorAll('title')].map((t) => t.textContent)).toEqual(['idle-jet-blocked: 54 %']);
    expect(getByRole('group').getAttribute('aria-label')).toContain('coil-heat-fade: 20 %');
  });

  it('never lays one badge over another, however close the suspects sit', () => {
    const { container } = draw([
      suspect('main-jet-blocked', 'main', 0.4),
      suspect('main-jet-restricted', 'main', 0.3),
      suspect('emulsion-tube-blocked', 'main', 0.2),
      suspect('inlet-needle-leaking', 'inlet-valve', 0.1),
    ]);
    const tops = [...container.querySelectorAll('g[transform^="translate(6 "]')].map((g) =>
      Number(/translate\(6 ([\d.]+)\)/.exec(g.getAttribute('transform') ?? '')?.[1]),
    );
    expect(tops).toHaveLength(4);
    const sorted = [...tops].sort((a, b) => a - b);
    sorted.slice(1).forEach((top, i) => expect(top - (sorted[i] ?? 0)).toBeGreaterThanOrEqual(24));
  });
});
