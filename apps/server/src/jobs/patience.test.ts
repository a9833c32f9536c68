import { ConnectionRefusedError } from 'sequelize';
import { describe, expect, it } from 'vitest';
import { isAway, patiently } from './patience.ts';

const coded = (code: string) => Object.assign(new Error(code), { code });

describe('a task whose database or bucket is away', () => {
  it.each([
    ['a refused connection', coded('ECONNREFUSED'), true],
    ['each of its addresses refused', new AggregateError([coded('ECONNREFUSED')]), true],
    ['a database that does not answer', new ConnectionRefusedError(coded('ECONNREFUSED')), true],
    [
      'a bucket that refuses',
      Object.assign(new Error(), { $metadata: { httpStatusCode: 503 } }),
      true,
    ],
    ['what lies under another error', new Error('Lost', { cause: coded('EPIPE') }), true],
    [
      'a bucket that has no such thing',
      Object.assign(new Error(), { $metadata: { httpStatusCode: 404 } }),
      false,
    ],
    ['a file that is not there', coded('ENOENT'), false],
    ['anything else', new Error('ffmpeg says no'), false],
  ])('knows %s', (_what, error, is) => expect(isAway(error)).toBe(is));

  it('is done again until it succeeds, and not once it is to stop or has failed by itself', async () => {
    let tries = 0;
    const failing = (error: Error, times: number) => () => {
      tries += 1;
      return tries <= times ? Promise.reject(error) : Promise.resolve('done');
    };
    const waits: unknown[] = [];
    const away = coded('ECONNRESET');
    expect(await patiently(failing(away, 3), undefined, (why) => waits.push(why), 1)).toBe('done');
    expect(waits).toEqual([away, away, away]);
    tries = 0;
    await expect(patiently(failing(new Error('No'), 3), undefined)).rejects.toThrow('No');
    expect(tries).toBe(1);
    const stop = new AbortController();
    const stopped = patiently(failing(away, 99), stop.signal, () => stop.abort(), 60_000);
    await expect(stopped).rejects.toBe(away);
  });
});
