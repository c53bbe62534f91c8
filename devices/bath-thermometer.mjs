#!/usr/bin/env node
// A stand-in for a thermometer with a serial lead in the heated bath: warms up or cools down as a bath does (Newton's
// law) and sends what it shows to Blue Dawn. For trying things out where there is no bath.
//   node devices/bath-thermometer.mjs [--url http://127.0.0.1:5080] [--user jory] [--start 22] [--end 82]
//                                     [--time-constant 16] [--every 5] [--faster 12] [--readings 0]
// --every: seconds between readings; --faster: how many times faster than a real bath it warms; --readings: how many it
// sends, 0 for until Ctrl-C. The password is asked from BLUE_DAWN_PASSWORD, the demo shop's by default.
import { randomUUID } from 'node:crypto';
import { parseArgs } from 'node:util';
import { signIn } from './shop.mjs';

const { values } = parseArgs({
  options: {
    url: { type: 'string', default: 'http://127.0.0.1:5080' },
    user: { type: 'string', default: 'jory' },
    start: { type: 'string', default: '22' },
    end: { type: 'string', default: '82' },
    'time-constant': { type: 'string', default: '16' },
    every: { type: 'string', default: '5' },
    faster: { type: 'string', default: '12' },
    readings: { type: 'string', default: '0' },
  },
});
const [start, end, minutes, every, faster, most] = ['start', 'end', 'time-constant', 'every', 'faster', 'readings'].map(
  (name) => {
    const number = Number(values[name]);
    if (Number.isNaN(number)) throw new Error(`--${name} is not a number`);
    return number;
  },
);

const send = await signIn(values.url, values.user);
const began = Date.now();
for (let sent = 0; most === 0 || sent < most; sent++) {
  if (sent > 0) await new Promise((done) => setTimeout(done, every * 1000));
  const passed = ((Date.now() - began) / 60_000) * faster;
  const shown = (end + (start - end) * Math.exp(-passed / minutes)).toFixed(1);
  const event = { id: randomUUID(), kind: 'temperature', temperature: `${shown} °C` };
  await send('/api/baths/heated/events', event);
  console.log(`${shown} °C`);
}
