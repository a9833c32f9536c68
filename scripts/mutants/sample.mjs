// One in so many pieces of code is mutated, the same ones each time.
const share = Number(process.env['SHARE'] ?? '1');

const isPiece = (path) => {
  const parent = path.parentPath;
  if (path.isClassDeclaration() || path.isExportDeclaration()) return false;
  return parent?.isProgram() || parent?.isExportDeclaration() || parent?.isClassBody();
};

const shouldIgnore = (path) => {
  if (share === 1 || !isPiece(path)) return undefined;
  const { start, end } = path.node;
  const hash = (Math.imul(start * 31 + end, 0x9e3779b1) >>> 8) % share;
  return hash === 0 ? undefined : 'not in the sample';
};

export const strykerPlugins = [{ kind: 'Ignore', name: 'sample', value: { shouldIgnore } }];
