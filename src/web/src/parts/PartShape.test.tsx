import { readFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { render } from '@testing-library/react';
import { expect, it } from 'vitest';
import { PartShape } from './PartShape';

const table = readFileSync(resolve(import.meta.dirname, '../../../../data/strip/parts.csv'), 'utf8')
  .split('\n')
  .filter((row) => row !== '' && !row.startsWith('#'))
  .slice(1)
  .map((row) => row.split(',')[1] ?? '');

const drawing = (part: string): string =>
  render(
    <svg>
      <PartShape part={part} way={null} />
    </svg>,
  ).container.innerHTML;

it('draws every part of the strip table, and nothing that is not on it', () => {
  const unknown = drawing('a part somebody found besides');
  expect(table.length).toBeGreaterThan(40);
  expect(table.filter((part) => drawing(part) === unknown)).toEqual([]);
  const source = readFileSync(resolve(import.meta.dirname, 'PartShape.tsx'), 'utf8');
  const drawn = [...source.matchAll(/case '([a-z-]+)'/g)].map((match) => match[1]);
  expect(drawn.filter((part) => part !== undefined && !table.includes(part))).toEqual([]);
});
