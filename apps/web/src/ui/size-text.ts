/**
 * Room on a disk, in whole megabytes up to a gigabyte: what is there is never said to be nothing.
 */
export function sizeText(bytes: number): string {
  return bytes >= 1e9
    ? `${(bytes / 1e9).toFixed(1)} GB`
    : `${Math.max(bytes > 0 ? 1 : 0, Math.round(bytes / 1e6))} MB`;
}
