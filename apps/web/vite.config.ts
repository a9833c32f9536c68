import path from 'node:path';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';
import { catalogues, WITHOUT_PARSER } from './catalogues.ts';

const root = import.meta.dirname;

const page = (name: string) => path.join(root, `${name}.html`);
/**
 * The student's page is built by itself: one script and one style sheet come sooner over a slow
 * line than a dozen.
 */
const inputs = {
  teacher: { app: page('index'), remote: page('remote'), privacy: page('privacy') },
  student: { follow: page('follow') },
};

export default defineConfig(({ mode }) => ({
  root,
  plugins: [react(), catalogues()],
  // Two files of a package that is otherwise not used: the pose model and its weights.
  resolve: {
    alias: {
      ...WITHOUT_PARSER,
      '@zest/pose-model': path.resolve(root, '../../node_modules/@vladmandic/human/models'),
    },
  },
  worker: { format: 'es', plugins: () => [catalogues()] },
  html: { cspNonce: '__NONCE__' },
  build: {
    outDir: path.resolve(root, '../../dist/web'),
    emptyOutDir: mode !== 'student',
    target: 'es2022',
    // Small fonts stay files: the policy of the pages allows no data: fonts.
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 1_500,
    rollupOptions: { input: mode === 'student' ? inputs.student : inputs.teacher },
  },
}));
