/** The page on which the figure is filmed: for the demo clips and for measuring what is read from them. No part of the application. */
import { defineConfig } from 'vite';

import { sightFiles } from '../build/sight-files.js';

export default defineConfig({
  root: import.meta.dirname,
  plugins: [sightFiles()],
  worker: { plugins: () => [sightFiles()] },
  build: { target: 'es2022', outDir: '../../node_modules/.cache/waxwing-film', emptyOutDir: true },
});
