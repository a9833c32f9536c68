import path from 'node:path';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

const root = import.meta.dirname;

export default defineConfig({
  root,
  plugins: [react()],
  // Two files of a package that is otherwise not used: the pose model and its weights.
  resolve: { alias: { '@zest/pose-model': path.resolve(root, '../../node_modules/@vladmandic/human/models') } },
  worker: { format: 'es' },
  html: { cspNonce: '__NONCE__' },
  build: {
    outDir: path.resolve(root, '../../dist/web'),
    emptyOutDir: true,
    target: 'es2022',
    // Small fonts stay files: the policy of the pages allows no data: fonts.
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 1_500,
    rollupOptions: { input: { app: path.join(root, 'index.html'), follow: path.join(root, 'follow.html'), remote: path.join(root, 'remote.html'), privacy: path.join(root, 'privacy.html') } },
  },
});
