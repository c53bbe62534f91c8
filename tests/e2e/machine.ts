import { spawn, type ChildProcess } from 'node:child_process';
import { resolve } from 'node:path';

const server = resolve(import.meta.dirname, '../../artifacts/server');

/** Debian's Chromium, kept from calling anywhere. */
export const chromium = {
  executablePath: '/usr/bin/chromium',
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

export const serverCommand = (port: number): string => `dotnet ${args(port).join(' ')}`;

/** A second server on the same database, for a test that stops and starts it. Ends only what it started itself. */
export class OwnServer {
  private process: ChildProcess | null = null;

  constructor(readonly port: number) {}

  get url(): string {
    return `http://127.0.0.1:${this.port}`;
  }

  async start(): Promise<void> {
    this.process = spawn('dotnet', args(this.port), {
      env: { ...process.env, BLUE_DAWN_DEMO: 'true' },
      stdio: 'ignore',
    });
    for (let tries = 0; tries < 150; tries++) {
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
