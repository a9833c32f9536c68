import { megabytes } from './footage.ts';
import type { Keeping } from './use-footage.ts';
import { say } from './words/index.ts';

/**
 * Whether the lesson is kept on the device, so that it plays without a connection. It is said to be
 * kept only once all of it is.
 */
export function KeepOffline({ keeping }: { keeping: Keeping }) {
  switch (keeping.kind) {
    case 'none':
      return null;
    case 'off':
      return (
        <p>
          <button type="button" onClick={keeping.start}>
            {say('keep.keep', { mb: megabytes(keeping.bytes) })}
          </button>
        </p>
      );
    case 'loading':
      return (
        <p className="soft" role="status">
          {say('keep.loading', { done: keeping.done, of: keeping.of })}
        </p>
      );
    case 'kept':
      return <p className="soft">{say('keep.kept')}</p>;
    case 'fault':
      return <p className="soft">{say('keep.fault')}</p>;
  }
}
