import { spawn, type ChildProcess } from 'node:child_process';
import { existsSync } from 'node:fs';
import { createServer as createProxy, request, type Server } from 'node:http';
import { createServer, type AddressInfo } from 'node:net';
import { resolve } from 'node:path';

const server = resolve(import.meta.dirname, '../../artifacts/server');

/** Debian's Chromium, the one without windows where it is there, kept from calling anywhere. */
export const chromium = {
  executablePath: ['/usr/bin/chromium-headless-shell', '/usr/bin/chromium'].find(existsSync) ?? 'chromium',
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
};

const args = (port: number): string[] => [
  `${server}/BlueDawn.Server.dll`,
  '--urls',
  `http://127.0.0.1:${port}`,
  '--contentRoot',
  server,
];

/** A port of the loopback interface that nobody listens on. */
export const freePort = (): Promise<number> =>
  new Promise((done) => {
    const probe = createServer();
    probe.listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as AddressInfo;
      probe.close(() => done(port));
    });
  });

/** A server on a database, started and stopped by a test. Ends only what it started itself. */
export class OwnServer {
  private process: ChildProcess | null = null;

  constructor(
    readonly port: number,
    readonly database: string,
    /** The code of an empty shop; without one it is the demo shop. */
    readonly setupCode?: string,
  ) {}

  get url(): string {
    return `http://127.0.0.1:${this.port}`;
  }

  async start(): Promise<void> {
    this.process = spawn('dotnet', args(this.port), {
      env: {
        ...process.env,
        BLUE_DAWN_DATABASE: this.database,
        BLUE_DAWN_DEMO: String(this.setupCode === undefined),
        ...(this.setupCode === undefined ? {} : { BLUE_DAWN_SETUP_CODE: this.setupCode }),
        ASPNETCORE_ENVIRONMENT: 'Production',
        // A server that lives for minutes is not worth optimizing by what it did.
        DOTNET_TieredPGO: '0',
      },
      stdio: 'ignore',
    });
    for (let tries = 0; tries < 300; tries++) {
      try {
        if ((await fetch(`${this.url}/health/ready`)).ok) return;
      } catch {
        // Not up yet.
      }
      await new Promise((done) => setTimeout(done, 200));
    }
    throw new Error('The server did not start.');
  }

  async stop(): Promise<void> {
    const running = this.process;
    this.process = null;
    if (!running || running.exitCode !== null) return;
    const ended = new Promise((done) => running.once('exit', done));
    running.kill('SIGKILL'); // a pulled plug, not a farewell
    await ended;
  }
}

/** In front of a server, as if it had been upgraded: what is said here is put behind the service worker's own text. */
export class Upgrade {
  appended = '';
  private readonly proxy: Server;

  constructor(
    readonly port: number,
    target: number,
  ) {
    this.proxy = createProxy((asked, answer) => {
      const { method, url: path, headers } = asked;
      // Plain and whole, never "as you have it".
      const { 'accept-encoding': _, 'if-none-match': __, 'if-modified-since': ___, ...plain } = headers;
      const own = path === '/sw.js' ? plain : headers;
      const passed = request({ host: '127.0.0.1', port: target, method, path, headers: own }, (got) => {
        const { 'content-length': length, etag, 'last-modified': at, ...rest } = got.headers;
        const changed = path === '/sw.js';
        answer.writeHead(got.statusCode ?? 502, changed ? rest : got.headers);
        got.on('end', () => answer.end(changed ? this.appended : undefined));
        got.pipe(answer, { end: false });
      });
      passed.on('error', () => answer.destroy());
      answer.on('close', () => passed.destroy());
      asked.pipe(passed);
    }).listen(port, '127.0.0.1');
  }

  get url(): string {
    return `http://127.0.0.1:${this.port}`;
  }

  stop(): void {
    this.proxy.close();
    this.proxy.closeAllConnections();
  }
}
