/**
 * Test files run at a time. Half of what a server test does is waiting for ffmpeg and the database.
 */
export const WORKERS = 2;
