import { exec } from 'node:child_process';
import { resolve } from 'node:path';
import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig, type Plugin } from 'vite';

const server = process.env.BLUE_DAWN_SERVER ?? 'http://127.0.0.1:5080';
const contract = resolve(import.meta.dirname, '../../artifacts/openapi/v1.json');

/** The server's build writes what its API is; the client's types follow it while both are being changed. */
const followTheApi: Plugin = {
  name: 'follow-the-api',
  configureServer({ watcher }) {
    watcher.add(contract);
    watcher.on('change', (file) => {
      if (file === contract) exec('npm run --silent generate');
    });
  },
};

export default defineConfig({
  plugins: [react(), tailwindcss(), followTheApi],
  server: { proxy: { '/api': server, '/core': server } },
  build: { target: 'es2022' },
});
