import { render } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { Tray } from '../api/client';
import { PersonProvider } from '../session/session';
import { bowlScale, Cutaway, type Suspect } from './Cutaway';

const person = {
  id: 'ilse',
  userName: 'ilse',
  displayName: 'Ilse',
  role: 'lead' as const,
  roleLabel: 'Lead',
  permissions: [],
  units: 'metric' as const,
  pins: '',
  hasPin: false,
  byPin: false,
};
const tray = { lines: [], float: null } as unknown as Tray;
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

describe('the float, drawn to scale', () => {
  const float = {
    topMm: 15.5,
    tallMm: 20,
    angleDeg: 3.6,
    levelMm: 23.3,
    meantMm: 21.8,
    needleGapMm: 0,
    immersedShare: 0.61,
    roomG: 4,
  };

  it('has the fuel as far below the face as it was worked out, in the same measure as everything else', () => {
    const { pxPerMm, level, top } = bowlScale(float);
    expect((level - 118) / pxPerMm).toBeCloseTo(float.levelMm, 9);
    expect((top - 118) / pxPerMm).toBeCloseTo(float.topMm, 9);
    const { container, getByText } = render(
      <PersonProvider person={person}>
        <Cutaway tray={{ ...tray, float }} suspects={[]} near />
      </PersonProvider>,
    );
    expect(container.querySelector(`path[d="M89 ${level}H251"]`)).not.toBeNull();
    expect(getByText('fuel 23.3 mm below the face, 1.5 mm low')).toBeTruthy();
  });

  it('runs over when the needle cannot shut', () => {
    const { getByText } = render(
      <PersonProvider person={person}>
        <Cutaway tray={{ ...tray, float: { ...float, levelMm: null, needleGapMm: 0.45 } }} suspects={[]} />
      </PersonProvider>,
    );
    expect(getByText('the needle cannot shut: it runs over')).toBeTruthy();
  });
});
