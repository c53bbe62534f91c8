#!/usr/bin/env node
// A stand-in for an angle sensor on a choke's plate and a tachometer: a start of an engine whose heat choke opens as it
// warms up (Newton's law), or whose vacuum choke opens at once. It sends both series to Blue Dawn, or writes them to the
// terminal as a file that Choke takes. For trying things out where there is no engine.
//   node devices/choke-start.mjs [--url http://127.0.0.1:5080] [--user jory] [--outside 18] [--end 130] [--time-constant 95]
//                                [--begins-at 55] [--full-at 75] [--vacuum 0] [--falters 0] [--seconds 240] [--every 0.5]
//                                [--noise 0.5] [--csv]
// --outside, --end, --begins-at, --full-at: °C; --time-constant: seconds; --vacuum: seconds in which suction opens it, 0 for a
// heat choke; --falters: when the engine stumbles, 0 for never; --noise: degrees of the sensor; --csv: sends nothing.
// The password is asked from BLUE_DAWN_PASSWORD, the demo shop's by default.
import { parseArgs } from 'node:util';
import { signIn } from './shop.mjs';

const defaults = {
  outside: '18',
  end: '130',
  'time-constant': '95',
  'begins-at': '55',
  'full-at': '75',
  vacuum: '0',
  falters: '0',
  seconds: '240',
  every: '0.5',
  noise: '0.5',
};
const { values } = parseArgs({
  options: {
    url: { type: 'string', default: 'http://127.0.0.1:5080' },
    user: { type: 'string', default: 'jory' },
    csv: { type: 'boolean', default: false },
    ...Object.fromEntries(Object.entries(defaults).map(([name, value]) => [name, { type: 'string', default: value }])),
  },
});
const [outside, end, tau, beginsAt, fullAt, vacuum, falters, seconds, every, noise] = Object.keys(defaults).map(
  (name) => {
    const number = Number(values[name]);
    if (Number.isNaN(number)) throw new Error(`--${name} is not a number`);
    return number;
  },
);

const SHUT_DEG = 78;
const openingAt = (t) =>
  vacuum > 0 ? t / vacuum : (end - (end - outside) * Math.exp(-t / tau) - beginsAt) / (fullAt - beginsAt);
const timesS = [];
const angles = [];
const speeds = [];
for (let t = 0; t <= seconds; t += every) {
  timesS.push(Number(t.toFixed(2)));
  const shut = 1 - Math.min(1, Math.max(0, openingAt(t)));
  angles.push(Number((SHUT_DEG * shut + noise * (Math.random() - 0.5)).toFixed(1)));
  speeds.push(Math.round(falters > 0 && t >= falters ? 900 : 3000 + 40 * Math.random()));
}

if (values.csv) {
  console.log('s;deg;rpm');
  timesS.forEach((time, i) => console.log(`${time};${angles[i]};${speeds[i]}`));
} else {
  const send = await signIn(values.url, values.user);
  await send('/api/instruments/plate-angle', { timesS, values: angles });
  await send('/api/instruments/tachometer', { timesS, values: speeds });
  console.log(`${timesS.length} angles and speeds sent`);
}
