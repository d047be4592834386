import { svelte } from '@sveltejs/vite-plugin-svelte';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  plugins: [tailwindcss(), svelte()],
  build: { target: 'es2022' },
  server: { proxy: { '/api': 'http://127.0.0.1:8420' } },
  test: {
    include: ['src/**/*.test.ts'],
    setupFiles: ['src/testing/setup.ts'],
    // what all files import is read once for each core, not once for each file
    pool: 'threads',
    isolate: false,
    testTimeout: 30_000, // one that is slow on a busy machine is not one that is wrong
  },
});
