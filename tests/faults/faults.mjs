// Faults, one after the other, against servers and a database that tests/faults/faults has set up. What is counted comes
// from the database itself, past the server. Exit code 1 when any figure is not what it has to be.
import { spawn, execFileSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { readFileSync, writeFileSync, statfsSync, rmSync } from 'node:fs';
import { createConnection, createServer } from 'node:net';

const { FAULTS_OWNER, FAULTS_BENCH, FAULTS_PORT, FAULTS_PG, FAULTS_HOME, FAULTS_ROOT, FAULTS_DATA, FAULTS_DISK } = process.env;
const name = /Database=(\w+)/.exec(FAULTS_OWNER)[1];
const sleep = (ms) => new Promise((done) => setTimeout(done, ms));
const table = [];
let wrong = 0;
const row = (what, figures, good) => {
  table.push([what, figures, good ? 'as it has to be' : 'WRONG']);
  if (!good) wrong++;
  console.log(`${good ? 'ok     ' : 'WRONG  '} ${what}: ${figures}`);
};

const sql = (text) =>
  execFileSync(`${FAULTS_PG}/psql`, ['--no-psqlrc', '-h', '127.0.0.1', '-p', FAULTS_PORT, '-U', 'blue_dawn', '-d', name, '-tAc', text], { encoding: 'utf8' }).trim();

const freePort = () => new Promise((done) => {
  const probe = createServer();
  probe.listen(0, '127.0.0.1', () => { const { port } = probe.address(); probe.close(() => done(port)); });
});

class Server {
  constructor(port) { this.port = port; this.url = `http://127.0.0.1:${port}`; }
  async start(wait = true) {
    this.child = spawn('dotnet', [`${FAULTS_ROOT}/artifacts/server/BlueDawn.Server.dll`, '--urls', this.url, '--contentRoot', `${FAULTS_ROOT}/artifacts/server`], {
      env: { ...process.env, BLUE_DAWN_DATABASE: FAULTS_BENCH, BLUE_DAWN_OWNER: FAULTS_OWNER, BLUE_DAWN_DEMO: 'true', ASPNETCORE_ENVIRONMENT: 'Production' },
      stdio: 'ignore',
    });
    if (wait) await this.ready();
    return this;
  }
  async ready() {
    for (let i = 0; i < 600; i++) {
      if (this.child.exitCode !== null) throw new Error(`the server ended with ${this.child.exitCode}`);
      try { if ((await fetch(`${this.url}/health/ready`)).ok) return; } catch { /* not yet */ }
      await sleep(100);
    }
    throw new Error('the server did not start');
  }
  async kill(signal = 'SIGKILL') {
    const ended = new Promise((done) => this.child.once('exit', done));
    this.child.kill(signal);
    await ended;
  }
}

class Visitor {
  constructor(url) { this.url = url; this.cookies = new Map(); this.token = ''; }
  async send(method, path, body, extra = {}) {
    const answer = await fetch(this.url + path, {
      method,
      headers: {
        cookie: [...this.cookies].map(([k, v]) => `${k}=${v}`).join('; '), 'X-Blue-Dawn-Token': this.token,
        ...(body instanceof Uint8Array ? { 'content-type': 'image/png' } : body ? { 'content-type': 'application/json' } : {}),
      },
      body: body instanceof Uint8Array ? body : body && JSON.stringify(body),
      signal: AbortSignal.timeout(20_000),
      ...extra,
    });
    for (const cookie of answer.headers.getSetCookie()) {
      const [pair] = cookie.split(';');
      this.cookies.set(pair.slice(0, pair.indexOf('=')), pair.slice(pair.indexOf('=') + 1));
    }
    const text = await answer.text();
    return { status: answer.status, body: text.startsWith('{') || text.startsWith('[') ? JSON.parse(text) : text };
  }
  async signIn(userName) {
    this.token = (await this.send('GET', '/api/session')).body.token;
    const answer = await this.send('POST', '/api/session', { userName, password: 'sandrigg-quay' });
    if (answer.status !== 200) throw new Error(`sign-in: ${answer.status}`);
    this.token = answer.body.token;
    return this;
  }
  async refresh() { this.token = (await this.send('GET', '/api/session')).body.token; }
  async newTray(id = randomUUID(), stamped = '4107', entryId = randomUUID()) {
    return this.send('POST', '/api/trays', {
      trayId: id, entryId, ownerName: 'Boat Fault', machineName: `Pump ${id.slice(0, 8)}`, family: 'floatBowl', complaint: 'Hunts',
      promisedDay: new Date(Date.now() + 3 * 864e5).toISOString().slice(0, 10), stampedNumber: stamped,
    });
  }
  notes(tray, ...entries) {
    return this.send('POST', `/api/trays/${tray}/notes`, { entries: entries.map((e) => ({ id: randomUUID(), takenAt: new Date().toISOString(), ...e })) });
  }
}

const reading = (n) => ({ kind: 'reading', line: 'gauging/main-jet', typed: { units: 'metric', values: { go: (0.5 + (n % 40) / 100).toFixed(2) }, rows: [] }, sure: true });
const startDatabase = () => execFileSync('bash', ['-c', 'cd "$FAULTS_ROOT"; . scripts/say.sh; . scripts/postgres.sh; PG_WANTED=$FAULTS_PORT pg_start "$FAULTS_DATA"'], { stdio: 'ignore' });
const killDatabase = () => process.kill(Number(readFileSync(`${FAULTS_HOME}/data/postmaster.pid`, 'utf8').split('\n')[0]), 'SIGKILL');
const stopDatabase = () => execFileSync('bash', ['-c', 'cd "$FAULTS_ROOT"; . scripts/say.sh; . scripts/postgres.sh; pg_find_binaries; pg_place "$FAULTS_DATA"; pg_stop'], { stdio: 'ignore' });
const logged = (tray, kind = 'reading') => Number(sql(`select count(*) from logbook_entries e join trays t on t.id = e.tray_id where t.number = ${tray} and e.kind = '${kind}'`));

/** Sends entries until each is acknowledged, as the page's outbox does; what else the server said is counted. */
async function untilTaken(visitor, tray, ids, said) {
  for (const [n, id] of ids.entries()) {
    for (;;) {
      try {
        const answer = await visitor.notes(tray, { id, note: reading(n) });
        said[answer.status] = (said[answer.status] ?? 0) + 1;
        if (answer.status === 200) break;
        if (answer.status === 400 || answer.status === 401) await visitor.refresh();
      } catch { said.away = (said.away ?? 0) + 1; }
      await sleep(50);
    }
  }
}

const only = process.argv[2];
const server = await new Server(await freePort()).start();
const jory = await new Visitor(server.url).signIn('jory');

if (!only) {
  // 1. Kills in 1,000 writes.
  {
    const trays = await Promise.all([1, 2, 3, 4].map(async () => (await jory.newTray()).body.number));
    const ids = trays.map(() => Array.from({ length: 250 }, () => randomUUID()));
    const said = {};
    const writing = Promise.all(trays.map((tray, i) => untilTaken(jory, tray, ids[i], said)));
    let kills = 0;
    let done = false;
    void writing.then(() => { done = true; });
    for (let i = 0; i < 6 && !done; i++) {
      await sleep(700 + Math.random() * 600);
      if (i % 2 === 0) { await server.kill(); await server.start(); } else { killDatabase(); await sleep(300); startDatabase(); }
      kills++;
    }
    await writing;
    const found = trays.map((tray) => logged(tray));
    const faults = Object.entries(said).filter(([status]) => Number(status) >= 500 && status !== '503').reduce((sum, [, n]) => sum + n, 0);
    row('1,000 acknowledged readings, server and database killed in turn', `${kills} kills, ${1000 - found.reduce((a, b) => a + b)} lost or doubled, ${faults} answers of 5xx other than 503 (${JSON.stringify(said)})`, found.every((n) => n === 250) && faults === 0 && kills >= 4);
  }

  // 2. The database away for a while.
  {
    const tray = (await jory.newTray()).body.number;
    const said = {};
    const ids = Array.from({ length: 60 }, () => randomUUID());
    const writing = untilTaken(jory, tray, ids, said);
    await sleep(200);
    stopDatabase();
    await sleep(3000);
    startDatabase();
    await writing;
    row('60 readings, the database stopped for 3 s', `${60 - logged(tray)} lost or doubled, answers ${JSON.stringify(said)}`, logged(tray) === 60 && !said[500] && said[503] > 0);
  }

  // 3. Two servers.
  {
    const second = await new Server(await freePort()).start();
    const marit = await new Visitor(second.url).signIn('marit');
    const tray = (await jory.newTray()).body.number;
    const listening = await fetch(`${second.url}/api/changes`, { headers: { cookie: [...marit.cookies].map(([k, v]) => `${k}=${v}`).join('; ') } });
    const reader = listening.body.getReader();
    let heard = false;
    const hearing = (async () => { for (;;) { const { value, done } = await reader.read(); if (done) return; if (new TextDecoder().decode(value).includes(`tray ${tray}`)) { heard = true; return; } } })();
    const said = {};
    const a = Array.from({ length: 100 }, () => randomUUID());
    const b = Array.from({ length: 100 }, () => randomUUID());
    // Half of them sent to both at the same moment.
    await Promise.all([untilTaken(jory, tray, a, said), untilTaken(marit, tray, b, said), untilTaken(marit, tray, a.slice(0, 50), said)]);
    await Promise.race([hearing, sleep(5000)]);
    row('200 readings through two servers, 50 of them sent to both', `${logged(tray) - 200} lost or doubled, the other server's page ${heard ? 'heard of it' : 'heard nothing'}`, logged(tray) === 200 && heard && !said[500]);
    // 160 requests at once at two servers.
    const all = await Promise.all(Array.from({ length: 160 }, (_, i) => (i % 2 ? jory : marit).send('GET', '/api/bench').then((r) => r.status, () => 0)));
    const dump = (() => { try { execFileSync(`${FAULTS_PG}/pg_dump`, ['-h', '127.0.0.1', '-p', FAULTS_PORT, '-U', 'blue_dawn', '-f', '/dev/null', name]); return true; } catch { return false; } })();
    row('160 requests at once to two servers, and a backup', `${all.filter((s) => s >= 500 || s === 0).length} not answered, backup ${dump ? 'written' : 'failed'}`, all.every((s) => s === 200) && dump);
    await second.kill();
  }

  // 4. Fifty entries of every kind, the answer lost, sent again.
  {
    const kinds = {
      reading: (n) => reading(n),
      findings: () => ({ kind: 'findings', checkId: null, answers: [{ findingId: 'hunts', said: 'present', doubtful: false }], fromOwner: false }),
      soils: () => ({ kind: 'soils', soils: ['varnish'] }),
      out: () => ({ kind: 'out', part: 'bowl-gasket', verdict: 'refit' }),
      oldPart: () => ({ kind: 'oldPart', part: 'bowl gasket', quantity: 1, features: { thickness: '1.5 mm' }, units: 'metric' }),
    };
    for (const [kind, note] of Object.entries(kinds)) {
      const tray = (await jory.newTray()).body.number;
      await jory.notes(tray, { note: { kind: 'job', job: 'full' } });
      const before = Number(sql(`select count(*) from logbook_entries e join trays t on t.id = e.tray_id where t.number = ${tray}`));
      const entries = Array.from({ length: 50 }, (_, n) => ({ id: randomUUID(), takenAt: new Date(Date.now() - (50 - n) * 1000).toISOString(), note: note(n) }));
      // The request goes out whole; the line is cut before the answer is read.
      await new Promise((done) => {
        const body = JSON.stringify({ entries });
        const line = createConnection(server.port, '127.0.0.1', () => {
          line.write(`POST /api/trays/${tray}/notes HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Type: application/json\r\nContent-Length: ${Buffer.byteLength(body)}\r\nX-Blue-Dawn-Token: ${jory.token}\r\nCookie: ${[...jory.cookies].map(([k, v]) => `${k}=${v}`).join('; ')}\r\n\r\n${body}`, () => setTimeout(() => { line.destroy(); done(); }, Math.random() * 60));
        });
        line.on('error', done);
      });
      const again = await jory.send('POST', `/api/trays/${tray}/notes`, { entries });
      const taken = again.body.outcomes?.filter((o) => o.outcome !== 'refused').length ?? 0;
      const ids = entries.map((e) => `'${e.id}'`).join(',');
      const found = Number(sql(`select count(*) from logbook_entries where id in (${ids})`));
      const order = sql(`select bool_and(ok) from (select taken_at >= lag(taken_at) over (order by taken_at, id) as ok from logbook_entries where id in (${ids})) x`);
      const extra = Number(sql(`select count(*) from logbook_entries e join trays t on t.id = e.tray_id where t.number = ${tray}`)) - before - found;
      // What changes nothing (the same gasket out of the same place twice) is acknowledged and not written twice.
      row(`50 entries of ${kind}, the answer lost, sent again`, `${taken} acknowledged, ${found} in the book, ${extra} doubled, in order ${order !== 'f'}`, again.status === 200 && taken === 50 && extra === 0 && order !== 'f' && (kind !== 'reading' || found === 50));
    }
  }

  // 5. Races of every write: the same id twice at the same moment, and two who want the same.
  {
    const twice = async (what, times, one, count) => {
      let faults = 0;
      let doubled = 0;
      for (let i = 0; i < times; i++) {
        const id = randomUUID();
        const context = await one.before?.(id);
        const answers = await Promise.all(Array.from({ length: 4 }, () => one.send(id, context)));
        faults += answers.filter((a) => a.status >= 500).length;
        const found = await count(id, context);
        if (found !== 1) doubled++;
      }
      row(`${what}, the same four times at once, ${times} times`, `${faults} answers of 5xx, ${doubled} not exactly once`, faults === 0 && doubled === 0);
    };
    const png = Buffer.from('iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==', 'base64');
    const fixed = (await jory.newTray()).body.number;
    await twice('A reading', 20, { send: (id) => jory.notes(fixed, { id, note: reading(3) }) }, (id) => Number(sql(`select count(*) from logbook_entries where id = '${id}'`)));
    await twice('A check-in', 20, { send: (id) => jory.newTray(id, '4107', id) }, (id) => Number(sql(`select count(*) from trays where id = '${id}'`)));
    await twice('A photo', 20, { send: (id) => jory.send('PUT', `/api/trays/${fixed}/photos/${id}`, png) }, (id) => Number(sql(`select count(*) from photos where id = '${id}'`)));
    await twice('A stock move', 20, { send: (id) => jory.send('POST', '/api/stock/moves', { id, item: 'OK-207', kind: 'received', pieces: 1 }) }, (id) => Number(sql(`select count(*) from stock_moves where id = '${id}'`)));
    await twice('A donor', 10, { send: (id) => jory.send('POST', '/api/stock/donors', { id, name: `Spare ${id.slice(0, 6)}`, specCode: 'FB18', without: [] }) }, (id) => Number(sql(`select count(*) from donors where id = '${id}'`)));
    const ordered = () => Number(sql(`select count(*) from stock_moves where kind = 'Ordered' and item_id = (select id from catalogue_items where number = 'BG-03')`));
    await twice('An order', 10, { before: () => ordered(), send: (id) => jory.send('POST', '/api/stock/buying/ordered', { id, supplier: 'Quay Supplies', lines: { 'BG-03': 1 } }) }, (_, before) => ordered() - before);
    await twice('A reading of a bath', 10, { send: (id) => jory.send('POST', '/api/baths/heated/events', { id, kind: 'temperature', temperature: '61' }) }, (id) => Number(sql(`select count(*) from bath_events where id = '${id}'`)));

    // Two who choose the same kit; everybody who wants the donor's needle; a bath and a change of the same tray.
    let faults = 0;
    let given = 0;
    const ilse = await new Visitor(server.url).signIn('ilse');
    for (let i = 0; i < 20; i++) {
      const [one, two] = [(await jory.newTray()).body, (await jory.newTray()).body];
      const choose = (visitor, tray, note) => visitor.notes(tray.number, { note, version: tray.version });
      const answers = await Promise.all([choose(jory, one, { kind: 'fitting', option: 'kit', kitNumber: 'OK-207' }), choose(ilse, two, { kind: 'fitting', option: 'kit', kitNumber: 'OK-207' })]);
      faults += answers.filter((a) => a.status >= 500).length;
    }
    row('Two choose the same kit at once, 20 times', `${faults} answers of 5xx`, faults === 0);
    faults = 0;
    for (let i = 0; i < 6; i++) {
      const trays = await Promise.all(Array.from({ length: 4 }, async () => (await jory.newTray()).body));
      const had = Number(sql(`select coalesce(sum(quantity), 0) from donor_takings where part = 'needle'`));
      const answers = await Promise.all(trays.map((tray) => jory.notes(tray.number, { note: { kind: 'fitting', option: 'donorPart', renew: ['needle'] }, version: tray.version })));
      faults += answers.filter((a) => a.status >= 500).length;
      const got = answers.filter((a) => a.status === 200).length;
      const there = Number(sql(`select (select coalesce(sum((p ->> 'quantity')::int), 0) from donors, jsonb_array_elements(parts) p where p ->> 'part' = 'needle') - (select coalesce(sum(quantity), 0) from donor_takings where part = 'needle')`));
      if (there < 0 || got !== Number(sql(`select coalesce(sum(quantity), 0) from donor_takings where part = 'needle'`)) - had) given++;
    }
    row('Four trays want the needle of a donor at once, 6 times', `${given} given away more often than it was there, ${faults} answers of 5xx`, faults === 0 && given === 0);
    faults = 0;
    for (let i = 0; i < 20; i++) {
      const tray = (await jory.newTray()).body;
      await jory.notes(tray.number, { note: { kind: 'job', job: 'closed' } });
      const { version } = (await jory.send('GET', `/api/trays/${tray.number}`)).body;
      const answers = await Promise.all([
        jory.send('POST', '/api/baths/ultrasonic/events', { id: randomUUID(), kind: 'placed', trayNumber: tray.number }),
        ilse.notes(tray.number, { note: { kind: 'facts', complaint: `Hunts ${i}` }, version }),
      ]);
      faults += answers.filter((a) => a.status >= 500).length;
      await jory.send('POST', '/api/baths/ultrasonic/events', { id: randomUUID(), kind: 'takenOut', trayNumber: tray.number, clean: true });
    }
    row('A tray goes into a bath and is changed at once, 20 times', `${faults} answers of 5xx`, faults === 0);
  }

  // 6. Guesses.
  {
    let in_ = 0;
    for (let round = 0; round < 5; round++) {
      sql('delete from sign_in_tries');
      const visitors = await Promise.all(Array.from({ length: 40 }, async () => { const v = new Visitor(server.url); await v.refresh(); return v; }));
      const answers = await Promise.all(visitors.map((v, i) => v.send('POST', '/api/session', { userName: 'tam', password: i === 20 + round ? 'sandrigg-quay' : `wrong-${i}` })));
      if (answers.some((a) => a.status === 200)) in_++;
    }
    sql('delete from sign_in_tries');
    const clock = async (userName) => { const v = new Visitor(server.url); await v.refresh(); const t = performance.now(); await v.send('POST', '/api/session', { userName, password: 'wrong' }); sql('delete from sign_in_tries'); return performance.now() - t; };
    const median = (list) => list.sort((x, y) => x - y)[Math.floor(list.length / 2)];
    const known = []; const unknown = [];
    for (let i = 0; i < 15; i++) { known.push(await clock('tam')); unknown.push(await clock('nobody-here')); }
    const ratio = median(known) / median(unknown);
    row('40 guesses at once with the right one among them, 5 times', `got in ${in_} times (by luck of being among the first five: expected 0.6); a known name takes ${ratio.toFixed(2)} times as long as an unknown one`, in_ <= 2 && ratio > 0.6 && ratio < 1.7);
  }

  // 7. Two servers that start at once on an empty database.
  {
    let crashed = 0;
    for (let i = 0; i < 4; i++) {
      sql(`drop database if exists blue_dawn_new with (force)`);
      sql(`create database blue_dawn_new`);
      const env = { BLUE_DAWN_DATABASE: FAULTS_BENCH.replace(name, 'blue_dawn_new'), BLUE_DAWN_OWNER: FAULTS_OWNER.replace(name, 'blue_dawn_new') };
      const two = await Promise.all([0, 1].map(async () => {
        const port = await freePort();
        const child = spawn('dotnet', [`${FAULTS_ROOT}/artifacts/server/BlueDawn.Server.dll`, '--urls', `http://127.0.0.1:${port}`, '--contentRoot', `${FAULTS_ROOT}/artifacts/server`], { env: { ...process.env, ...env, BLUE_DAWN_DEMO: 'true' }, stdio: 'ignore' });
        for (let t = 0; t < 600 && child.exitCode === null; t++) { try { if ((await fetch(`http://127.0.0.1:${port}/health/ready`)).ok) return { child, up: true }; } catch { /* not yet */ } await sleep(100); }
        return { child, up: false };
      }));
      crashed += two.filter((one) => !one.up).length;
      await Promise.all(two.map(({ child }) => new Promise((done) => { child.once('exit', done); child.kill('SIGKILL'); if (child.exitCode !== null) done(); })));
    }
    row('Two servers started at once on an empty database, 4 times', `${crashed} did not come up`, crashed === 0);
  }
}

if (only === 'disk') {
  const tray = (await jory.newTray()).body.number;
  const ids = Array.from({ length: 120 }, () => randomUUID());
  const said = {};
  const writing = untilTaken(jory, tray, ids, said);
  await sleep(300);
  const { bavail, bsize } = statfsSync(FAULTS_DISK);
  writeFileSync(`${FAULTS_DISK}/fill`, Buffer.alloc(Math.max(0, bavail * bsize - 4096)));
  await sleep(4000);
  rmSync(`${FAULTS_DISK}/fill`);
  // The database may have given up; whoever watches it (./run does) starts it again.
  try { sql('select 1'); } catch { startDatabase(); }
  await writing;
  row('120 readings, the disk full for 4 s', `${120 - logged(tray)} lost or doubled, answers ${JSON.stringify(said)}`, logged(tray) === 120 && !said[500]);
}

await server.kill();
const report = table.map(([what, figures, verdict]) => `| ${what} | ${figures} | ${verdict} |`).join('\n');
writeFileSync(`${FAULTS_ROOT}/artifacts/tests/faults${only ? `-${only}` : ''}.md`, `| What | Figures | |\n|---|---|---|\n${report}\n`);
console.log(wrong === 0 ? 'All as it has to be.' : `${wrong} wrong.`);
process.exit(wrong === 0 ? 0 : 1);
