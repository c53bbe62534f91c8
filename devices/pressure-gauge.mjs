#!/usr/bin/env node
// A stand-in for a pressure gauge with a serial lead on the hand pump: pumps a metering needle up until it lets go, some
// times over, then pumps once more and watches it hold; sends what it shows to Blue Dawn. For trying things out where
// there is no pump.
//   node devices/pressure-gauge.mjs [--url http://127.0.0.1:5080] [--user jory] [--pop 110] [--reseat 70] [--pops 3]
//                                   [--hold 69] [--half-life 600] [--seconds 14] [--step 0.5] [--noise 0.2] [--csv]
// --pop, --reseat, --hold: kPa; --half-life: seconds in which a leak halves the pressure; --seconds: how long it is watched;
// --step: the gauge's step; --noise: its scatter; --csv: writes the series to the terminal and sends nothing.
// --pops 0 watches a hold alone. The password is asked from BLUE_DAWN_PASSWORD, the demo shop's by default.
import { parseArgs } from 'node:util';
import { signIn } from './shop.mjs';

const defaults = {
  pop: '110',
  reseat: '70',
  pops: '3',
  hold: '69',
  'half-life': '600',
  seconds: '14',
  step: '0.5',
  noise: '0.2',
};
const { values } = parseArgs({
  options: {
    url: { type: 'string', default: 'http://127.0.0.1:5080' },
    user: { type: 'string', default: 'jory' },
    csv: { type: 'boolean', default: false },
    ...Object.fromEntries(Object.entries(defaults).map(([name, value]) => [name, { type: 'string', default: value }])),
  },
});
const [pop, reseat, pops, hold, halfLife, seconds, step, noise] = Object.keys(defaults).map((name) => {
  const number = Number(values[name]);
  if (Number.isNaN(number)) throw new Error(`--${name} is not a number`);
  return number;
});

const EVERY_S = 0.25;
const STROKE_KPA = 2;
const timesS = [];
const shown = [];
function show(kPa) {
  timesS.push(Number((timesS.length * EVERY_S).toFixed(2)));
  // Two normal numbers from two even ones (Box and Muller); one is enough.
  const scatter = noise * Math.sqrt(-2 * Math.log(1 - Math.random())) * Math.cos(2 * Math.PI * Math.random());
  shown.push(Number(Math.max(0, Math.round((kPa + scatter) / step) * step).toFixed(3)));
}
let kPa = 0;
for (let n = 0; n < pops; n++) {
  // No two pops are quite alike.
  const opens = pop * (1 + 0.02 * (Math.random() - 0.5));
  for (; kPa < opens; kPa += STROKE_KPA) show(kPa);
  for (const share of [0, 0.4, 0.8, 1, 1, 1, 1]) show(opens + (reseat - opens) * share);
  kPa = reseat;
}
// Up to what it has to hold, never so far that it lets go once more; a needle that shuts below that is watched from where it shut.
const top = pops > 0 ? Math.min(hold, pop * 0.9) : hold;
for (; kPa < top; kPa += STROKE_KPA) show(kPa);
for (let t = 0; t <= seconds; t += EVERY_S) show(Math.max(kPa, top) * 2 ** (-t / halfLife));

if (values.csv) {
  console.log('s;kPa');
  timesS.forEach((time, i) => console.log(`${time};${shown[i]}`));
} else {
  const send = await signIn(values.url, values.user);
  await send('/api/instruments/pressure-gauge', { timesS, values: shown });
  console.log(`${shown.length} pressures sent: ${pops} pops, then a hold of ${seconds} s`);
}
