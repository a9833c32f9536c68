import type { Role } from './team.ts';

/**
 * Who may call a route: anybody, anybody signed in, only the owner of what its path names, the
 * holder of a share link, a student of the class the link is for, or the holder of a remote's code.
 */
export type Access = 'public' | 'signed-in' | 'owner' | 'share' | 'student' | 'remote';

export interface Route {
  method: 'GET' | 'POST' | 'PUT' | 'DELETE';
  path: string;
  access: Access;
  /** Taken for a while after the link has closed. */
  late?: boolean;
  /** What somebody signed in must at least be; left out: viewer to read, teacher to write. */
  least?: Role;
}

/** What stands for a name in a path: `:lessonId` is a value called `lessonId`. */
type ParamsOf<Path extends string> = Path extends `${string}:${infer Name}/${infer Rest}`
  ? Record<Name, string | number> & ParamsOf<`/${Rest}`>
  : Path extends `${string}:${infer Name}`
    ? Record<Name, string | number>
    : unknown;

/** Values behind the `?`; what is undefined is left out. */
export type Query = Readonly<Record<string, string | number | boolean | undefined>>;

/** Values for the names in a route's path. */
export type RouteParams<R extends Route> = ParamsOf<R['path']>;
/** Where a route is asked for: its path with values in place of names, and a query. */
export function urlOf<R extends Route>(
  { path }: R,
  params: RouteParams<R>,
  query: Query = {},
): string {
  const given = params as Readonly<Record<string, string | number>>;
  const url = path.replace(/:(\w+)/g, (_, name: string) =>
    encodeURIComponent(String(given[name] ?? '')),
  );
  const asked = Object.entries(query).flatMap(([key, value]) =>
    value === undefined ? [] : [[key, String(value)]],
  );
  return asked.length > 0 ? `${url}?${new URLSearchParams(asked).toString()}` : url;
}
