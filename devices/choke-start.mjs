#!/usr/bin/env node
// A stand-in for an angle sensor on a choke's plate and a tachometer: a start of an engine whose choke opens by suction or by
// heat, written to the terminal as a file that Choke takes. For trying things out where there is no engine.
//   node devices/choke-start.mjs [--begins 40] [--open 70] [--falters 0] [--seconds 100] [--every 0.5] [--noise 0.5]
// --begins, --open: seconds; --falters: when the engine stumbles, 0 for never; --noise: degrees.
import { parseArgs } from 'node:util';

const defaults = { begins: '40', open: '70', falters: '0', seconds: '100', every: '0.5', noise: '0.5' };
const { values } = parseArgs({
  options: Object.fromEntries(
    Object.entries(defaults).map(([name, value]) => [name, { type: 'string', default: value }]),
  ),
});
const [begins, open, falters, seconds, every, noise] = Object.keys(defaults).map((name) => {
  const number = Number(values[name]);
  if (Number.isNaN(number)) throw new Error(`--${name} is not a number`);
  return number;
});
const SHUT_DEG = 78;
console.log('s;deg;rpm');
for (let t = 0; t <= seconds; t += every) {
  const opening = Math.min(1, Math.max(0, (t - begins) / (open - begins)));
  const angle = SHUT_DEG * (1 - opening) + noise * (Math.random() - 0.5);
  const speed = falters > 0 && t >= falters ? 900 : 3000 + 40 * Math.random();
  console.log(`${t.toFixed(2)};${angle.toFixed(1)};${speed.toFixed(0)}`);
}
