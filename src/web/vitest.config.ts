import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    environment: 'jsdom',
    setupFiles: 'src/test-setup.ts',
    restoreMocks: true,
    unstubGlobals: true,
    // One document for all files: making one for each takes five times as long as the tests.
    isolate: false,
    // Only a test that hangs is ended: where everything else is built at the same time the first drawing takes seconds.
    testTimeout: 60_000,
  },
});
