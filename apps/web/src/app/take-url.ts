import { routes, urlOf } from '@zest/contract';

/** Where a take's working copy is read from. */
export const takeUrl = (takeId: string): string => urlOf(routes.takeVideo, { takeId });
