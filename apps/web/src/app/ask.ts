import { urlOf, type Route, type RouteArgs, type RouteParams } from '@zest/contract';

interface Asked {
  url: string;
  method: Route['method'];
  body?: unknown;
}

/** What is asked of a route of the interface. */
export function ask<R extends Route>(route: R, ...[params, body, query]: RouteArgs<R>): Asked {
  const url = urlOf(route, (params ?? {}) as RouteParams<R>, query);
  return { url, method: route.method, ...(body !== undefined && { body }) };
}

/** Asks it by itself, outside the store. */
export function send<R extends Route>(route: R, ...args: RouteArgs<R>): Promise<Response> {
  const { url, method, body } = ask(route, ...args);
  return fetch(url, {
    method,
    ...(body !== undefined && {
      body: JSON.stringify(body),
      headers: { 'content-type': 'application/json' },
    }),
  });
}
