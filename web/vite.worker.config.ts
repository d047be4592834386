// The worker is built last: it lists what the page's own build left in dist.
import { createHash } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';

import { defineConfig } from 'vite';

const dist = join(import.meta.dirname, 'dist');
/** Fonts of scripts that the words do not use, and older font formats, are fetched when they are asked for. */
const seldom = /-(cyrillic|greek|vietnamese)[^/]*\.woff2$|\.woff$/;

/** Files of the page with what tells one version of them from another; names under assets do so themselves. */
function files(): { url: string; revision: string | null }[] {
  return readdirSync(dist, { recursive: true, withFileTypes: true })
    .filter((file) => file.isFile() && file.name !== 'worker.js' && !seldom.test(file.name))
    .map((file) => {
      const path = join(file.parentPath, file.name);
      const url = path.slice(dist.length);
      const hashed = url.startsWith('/assets/');
      return { url, revision: hashed ? null : createHash('sha256').update(readFileSync(path)).digest('hex') };
    });
}

export default defineConfig(({ mode }) => ({
  publicDir: false,
  define: {
    __FILES__: JSON.stringify(files()),
    'process.env.NODE_ENV': JSON.stringify(mode),
  },
  build: {
    target: 'es2022',
    emptyOutDir: false,
    lib: { entry: 'src/worker/worker.ts', formats: ['es'], fileName: () => 'worker.js' },
  },
}));
