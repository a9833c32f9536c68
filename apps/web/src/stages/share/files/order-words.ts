import { exportOrderSchema, type ExportOrder, type Take } from '@zest/contract';
import { teacherText, type TeacherWord } from '@zest/core/words';

export const USUAL = exportOrderSchema.parse({});
/** Changes told by name before the rest is only counted. */
const MOST_NAMED = 4;

/** Kinds of files are called by their own names. */
export const formatSign = (format: ExportOrder['format']): string =>
  format === 'webm' ? 'WebM' : format.toUpperCase();

export const megabytes = (bytes: number): string => teacherText('files.mb', { n: bytes / 1e6 });

/** What was ordered, in a line. */
export function orderWords(order: ExportOrder): string {
  const marks: readonly (readonly [boolean, TeacherWord])[] = [
    [order.shape === 'upright', 'files.upright'],
    [!order.overlays, 'files.no-overlays'],
    [order.captions, 'files.captions-burned'],
    [order.hand === 'other hand', 'files.other-hand'],
    [order.language === 'second', 'files.second'],
    [order.blockId !== null, 'files.one-block'],
  ];
  return [
    teacherText('files.lines', { lines: order.size }),
    formatSign(order.format),
    ...marks.filter(([holds]) => holds).map(([, word]) => teacherText(word)),
  ].join(', ');
}

/** What is to be said of footage that is smaller than the picture ordered; null where none is. */
export function enlargedWords(
  { size: lines, shape }: ExportOrder,
  takes: readonly Take[],
): string | null {
  if (lines !== '1080' || shape !== 'wide') return null;
  const smaller = takes.flatMap(({ size }) =>
    size !== null && Math.min(size.width, size.height) < Number(lines) ? [size] : [],
  );
  if (smaller.length === 0) return null;
  return teacherText('files.enlarged', {
    sizes: [...new Set(smaller.map(({ width, height }) => `${width} × ${height}`))].join(', '),
    which:
      smaller.length === takes.length
        ? teacherText('files.enlarged-all')
        : teacherText('files.enlarged-some', { n: smaller.length, all: takes.length }),
  });
}

/** What an export lacks, in a line. */
export function outOfDate(changed: readonly string[] | null): string {
  if (!changed) return teacherText('files.out-of-date');
  const what = changed.slice(0, MOST_NAMED).join(', ');
  const more = changed.length - MOST_NAMED;
  return more > 0
    ? teacherText('files.changed-more', { what, more })
    : teacherText('files.changed', { what });
}
