/// <reference lib="webworker" />
// Core itself, compiled for the browser, in a thread of its own: the page never waits for it.

interface CoreExports {
  Version: () => string;
  Take: (snapshot: string, pending: string, by: string) => string;
  Add: (number: number, pending: string, by: string) => string | null;
  Show: (number: number, page: string) => string | null;
  Judge: (number: number, draft: string) => string | null;
}

export interface Call {
  id: number;
  name: keyof CoreExports;
  args: unknown[];
}

export interface Reply {
  id: number;
  answer?: unknown;
  error?: string;
}

interface Runtime {
  dotnet: { create: () => Promise<{ getAssemblyExports: (name: string) => Promise<Assembly> }> };
}

interface Assembly {
  BlueDawn: { Browser: { CoreInTheBrowser: CoreExports } };
}

const address = '/core/dotnet.js';
const started = (async (): Promise<CoreExports> => {
  const { dotnet } = (await import(/* @vite-ignore */ address)) as Runtime;
  const { getAssemblyExports } = await dotnet.create();
  return (await getAssemblyExports('BlueDawn.Browser.dll')).BlueDawn.Browser.CoreInTheBrowser;
})();

self.addEventListener('message', ({ data }: MessageEvent<Call>) => {
  const { id, name, args } = data;
  started
    .then((core) => {
      const run = core[name] as (...all: unknown[]) => unknown;
      self.postMessage({ id, answer: run(...args) } satisfies Reply);
    })
    .catch((error: unknown) => self.postMessage({ id, error: String(error) } satisfies Reply));
});
