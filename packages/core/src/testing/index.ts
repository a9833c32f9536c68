export { EVERY_MS, evenClip, watchedClip } from './watched.ts';
