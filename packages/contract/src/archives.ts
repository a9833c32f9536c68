/** Largest lesson archive taken in, in bytes. */
export const MAX_ARCHIVE_BYTES = 8 * 1024 ** 3;
