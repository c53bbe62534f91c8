// Fails when the script that loads before the first page is larger than 150 kB gzipped.
import { readFileSync } from 'node:fs';
import { gzipSync } from 'node:zlib';

const MOST = 150_000;
const root = new URL('../artifacts/server/wwwroot', import.meta.url).pathname;
const scripts = readFileSync(`${root}/index.html`, 'utf8').match(/\/assets\/[^"]+\.js/g) ?? [];
const bytes = scripts.reduce((sum, script) => sum + gzipSync(readFileSync(root + script), { level: 9 }).length, 0);
console.log(`${scripts.length} scripts, ${bytes} bytes gzipped, of ${MOST} at most`);
if (scripts.length === 0 || bytes > MOST) process.exit(1);
