// Sums what every runner reported and prints one line: N passed, N failed. Exits 1 on a failure or a missing report.
import { readFileSync } from 'node:fs';
import { join } from 'node:path';

const [folder, quick] = process.argv.slice(2);
const total = { passed: 0, failed: 0, skipped: 0 };
const add = (passed, failed, skipped = 0) => {
  total.passed += passed;
  total.failed += failed;
  total.skipped += skipped;
};
const complain = (message) => {
  total.failed += 1;
  console.error(message);
};

const read = (name) => {
  try {
    return readFileSync(join(folder, name), 'utf8');
  } catch {
    return undefined;
  }
};
for (const project of ['BlueDawn.Core.Tests', 'BlueDawn.Server.Tests']) {
  const text = read(`${project}.trx`);
  const counters = text?.match(/<Counters\b[^>]*>/)?.[0];
  const of = (name) => Number(counters?.match(new RegExp(`\\b${name}="(\\d+)"`))?.[1] ?? 0);
  if (!counters || of('total') === 0) complain(`${project} ran no test.`);
  else add(of('passed'), of('failed') + of('error') + of('timeout') + of('aborted'), of('notExecuted'));
}

const readJson = (name) => {
  const text = read(name);
  if (text === undefined) complain(`${name} is missing: its runner did not finish.`);
  return text === undefined ? null : JSON.parse(text);
};
const vitest = readJson('vitest.json');
if (vitest) add(vitest.numPassedTests, vitest.numFailedTests, vitest.numPendingTests);
// A shell script ends with its own count.
const backups = quick === 'yes' ? null : read('Backups-good-and-bad.log');
if (backups !== null) {
  const [, good, bad] = /(\d+) passed, (\d+) failed\s*$/.exec(backups ?? '') ?? [];
  if (good === undefined) complain('The backups were not tried.');
  else add(Number(good), Number(bad));
}
const playwright = quick === 'yes' ? null : readJson('playwright.json');
if (playwright) add(playwright.stats.expected, playwright.stats.unexpected + playwright.stats.flaky, playwright.stats.skipped);

console.log(`${total.passed} passed, ${total.failed} failed${total.skipped > 0 ? `, ${total.skipped} skipped` : ''}`);
process.exitCode = total.failed > 0 ? 1 : 0;
