declare module '@20minutes/s3rver' {
  interface Context {
    method: string;
    query: Record<string, string | string[] | undefined>;
    status: number;
    type: string;
    body: string;
  }
  export default class S3rver {
    constructor(options: {
      address: string;
      port: number;
      directory: string;
      silent: boolean;
      allowMismatchedSignatures: boolean;
      configureBuckets: { name: string; configs: string[] }[];
    });
    /** What requests go through, first to last. */
    middleware: ((ctx: Context, next: () => Promise<void>) => Promise<void>)[];
    store: { getResourcePath(bucket: string, key: undefined, resource: string): string };
    httpServer: { closeAllConnections(): void };
    run(): Promise<unknown>;
    close(): Promise<void>;
  }
}
