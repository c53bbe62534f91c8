import { readFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { render } from '@testing-library/react';
import { expect, it } from 'vitest';
import { PartShape } from './PartShape';
import { LookDrawing } from './LookDrawing';
import { WayDrawing } from './WayDrawing';

const rows = (file: string): string[][] =>
  readFileSync(resolve(import.meta.dirname, `../../../../data/strip/${file}`), 'utf8')
    .split('\n')
    .filter((row) => row !== '' && !row.startsWith('#'))
    .slice(1)
    .map((row) => row.split(','));

const table = rows('parts.csv').map((row) => row[1] ?? '');

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

it('draws every way round of the ways table, each unlike the other of its group', () => {
  const drawn = rows('ways.csv').map(
    ([group = '', way = '']) => render(<WayDrawing group={group} way={way} />).container,
  );
  expect(drawn.length).toBeGreaterThan(15);
  expect(drawn.filter((one) => one.querySelector('svg')?.childElementCount === 0)).toEqual([]);
  expect(new Set(drawn.map((one) => one.innerHTML)).size).toBe(drawn.length);
});

it('draws only looks of the table, and each answer unlike the others of its look', () => {
  const table = readFileSync(resolve(import.meta.dirname, '../../../../data/setting/looks.csv'), 'utf8').split('\n');
  const source = readFileSync(resolve(import.meta.dirname, 'LookDrawing.tsx'), 'utf8');
  const pairs = [...source.matchAll(/^ {2}'([a-z-]+)\/(\w+)':/gm)].map(
    ([, look = '', seen = '']) => [look, seen] as const,
  );
  expect(pairs.length).toBeGreaterThan(20);
  const isListed = (look: string, seen: string): boolean =>
    table.some((row) => row.startsWith(`${look},`) && row.includes(`,${seen},`));
  expect(pairs.filter(([look, seen]) => !isListed(look, seen))).toEqual([]);
  const html = pairs.map(([look, seen]) => render(<LookDrawing look={look} seen={seen} />).container.innerHTML);
  expect(new Set(html).size).toBe(html.length);
});
