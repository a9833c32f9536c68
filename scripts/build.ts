import { readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { brotliCompressSync, gzipSync } from 'node:zlib';
import { build as bundle } from 'esbuild';
import { build as buildPages } from 'vite';
import { cataloguesForBundle, WITHOUT_PARSER } from '../apps/web/catalogues.ts';

/**
 * Builds the server's processes beside their package, whose dependencies they load, and the pages
 * into `dist/web`.
 */
const root = path.resolve(import.meta.dirname, '..');
const server = path.join(root, 'apps/server/src');
const serverOut = path.join(root, 'apps/server/dist');
const core = path.join(root, 'packages/core/src');
const demo = JSON.parse(readFileSync(path.join(root, 'demo/package.json'), 'utf8')) as {
  exports: Record<string, string>;
};

for (const old of [path.join(root, 'dist'), serverOut])
  rmSync(old, { recursive: true, force: true });
await bundle({
  entryPoints: {
    cli: path.join(server, 'cli/main.ts'),
    http: path.join(server, 'http-process.ts'),
    worker: path.join(server, 'worker-process.ts'),
    renderer: path.join(server, 'renderer-process.ts'),
    print: path.join(server, 'publish/prints/child.ts'),
  },
  outdir: serverOut,
  bundle: true,
  // What is loaded only when it is needed stays apart.
  splitting: true,
  platform: 'node',
  target: 'node20',
  format: 'esm',
  sourcemap: true,
  // Installed packages stay where they are; our own workspaces are bundled.
  packages: 'external',
  alias: Object.fromEntries([
    ...readdirSync(core).map((room) => [`@zest/core/${room}`, path.join(core, room, 'index.ts')]),
    ['@zest/contract', path.join(root, 'packages/contract/src/index.ts')],
    ...Object.entries(demo.exports).map(([name, file]) => [
      path.posix.join('@zest/demo', name),
      path.join(root, 'demo', file),
    ]),
  ]),
  logLevel: 'warning',
});
for (const mode of ['production', 'student'])
  await buildPages({
    configFile: path.join(root, 'apps/web/vite.config.ts'),
    mode,
    logLevel: 'warn',
  });
const assets = path.join(root, 'dist/web/assets');
const names = readdirSync(assets);
for (const name of names.filter((file) => /\.(js|css|json|wasm)$/.test(file))) {
  const plain = readFileSync(path.join(assets, name));
  writeFileSync(path.join(assets, `${name}.br`), brotliCompressSync(plain));
  writeFileSync(path.join(assets, `${name}.gz`), gzipSync(plain, { level: 9 }));
}
// By itself, and always under one name: a browser asks for a new one where it got the old.
await bundle({
  entryPoints: { 'follow-worker': path.join(root, 'apps/web/src/follow/worker.ts') },
  outdir: path.join(root, 'dist/web'),
  define: { ASSETS: JSON.stringify(names) },
  bundle: true,
  minify: true,
  format: 'iife',
  target: 'es2022',
  logLevel: 'warning',
});
// The page of lesson packages: plain files that play from a folder, without a server and without
// modules.
await bundle({
  entryPoints: { player: path.join(root, 'apps/web/src/follow/package.tsx') },
  plugins: [cataloguesForBundle],
  alias: WITHOUT_PARSER,
  outdir: path.join(root, 'dist/package'),
  bundle: true,
  minify: true,
  format: 'iife',
  target: 'es2022',
  jsx: 'automatic',
  define: { 'process.env.NODE_ENV': '"production"' },
  loader: { '.woff2': 'file' },
  assetNames: 'fonts/[name]-[hash]',
  logLevel: 'warning',
});
writeFileSync(path.join(root, 'dist/.built'), '');
