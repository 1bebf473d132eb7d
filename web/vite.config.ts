import react from '@vitejs/plugin-react';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig, type Plugin } from 'vite';
import { filesOnDevice } from './files-on-device.ts';

/** Every `import()` of the built program fetches its files first: a browser never asks again for a module that failed. */
const partsAskAgain: Plugin = {
  name: 'parts-ask-again',
  apply: 'build',
  transform: {
    filter: { id: /preload-helper\.js$/ },
    handler: () => `export { loadPart as __vitePreload } from '/src/offline/load-part.ts';`,
  },
};

export default defineConfig({
  plugins: [react(), partsAskAgain, tailwindcss(), filesOnDevice],
  resolve: { conditions: ['source', 'module', 'browser', 'development|production'] },
  build: {
    target: 'es2022',
    sourcemap: false,
    // Small pieces that every page has come as one file: each by itself is packed worse.
    rolldownOptions: {
      output: {
        codeSplitting: {
          groups: [
            {
              name: 'every-page',
              test: /web\/src\/ui\/(button|field|problem-note|form-problem|use-keys)\.tsx?$/,
            },
          ],
        },
      },
    },
    // The file itself is among those that are fetched before it is imported.
    modulePreload: {
      resolveDependencies: (file, files, { hostType }) =>
        hostType === 'js' ? [...new Set([file, ...files])] : files,
    },
  },
  server: { proxy: { '/api': process.env.API ?? 'http://127.0.0.1:8080' } },
});
