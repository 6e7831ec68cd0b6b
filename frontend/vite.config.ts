import react from '@vitejs/plugin-react';
import { defineConfig } from 'vitest/config';

// Django serves the page and, under /static/app/, the files named by their content.
export default defineConfig(({ command }) => ({
  base: command === 'build' ? '/static/' : '/',
  plugins: [react()],
  build: {
    assetsDir: 'app',
    target: 'es2022',
    chunkSizeWarningLimit: 600,
    modulePreload: { polyfill: false },
  },
  // Bootstrap 5 is written for the @import of Sass, which warns of its end.
  css: { preprocessorOptions: { scss: { quietDeps: true, silenceDeprecations: ['import'] } } },
  server: {
    proxy: Object.fromEntries(
      ['/api', '/sign-in', '/sign-out', '/no-role', '/static'].map((path) => [path, 'http://127.0.0.1:8000']),
    ),
  },
  test: { environment: 'jsdom', setupFiles: ['src/test-setup.ts'], globals: false },
}));
