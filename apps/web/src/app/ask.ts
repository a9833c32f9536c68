import {
  routes,
  urlOf,
  type BodyOf,
  type Query,
  type Route,
  type RouteName,
  type RouteParams,
} from '@zest/contract';

interface Asked {
  url: string;
  method: Route['method'];
  body?: unknown;
}

type Routes = typeof routes;
/** What is given with a route: values for its path where it has names, a body, a query. */
type Given<N extends RouteName> =
  unknown extends RouteParams<Routes[N]>
    ? [params?: Record<string, never>, body?: BodyOf<N>, query?: Query]
    : [params: RouteParams<Routes[N]>, body?: BodyOf<N>, query?: Query];

/** What is asked of a route of the interface. */
export function ask<N extends RouteName>(name: N, ...[params, body, query]: Given<N>): Asked {
  const route: Routes[N] = routes[name];
  const url = urlOf(route, (params ?? {}) as RouteParams<Routes[N]>, query);
  return { url, method: route.method, ...(body !== undefined && { body }) };
}

/** Asks it by itself, outside the store. */
export function send<N extends RouteName>(name: N, ...given: Given<N>): Promise<Response> {
  const { url, method, body } = ask(name, ...given);
  return fetch(url, {
    method,
    ...(body !== undefined && {
      body: JSON.stringify(body),
      headers: { 'content-type': 'application/json' },
    }),
  });
}
