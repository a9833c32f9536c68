import { describe, expect, it } from 'vitest';
import { CancelledError, ProgramError, run, write } from './run.ts';

const node = (script: string, options: Parameters<typeof run>[2] = {}, ...args: string[]) =>
  run(process.execPath, ['-e', script, ...args], options);

describe('running a program', () => {
  it('passes arguments as they are, to no shell', async () => {
    const nasty = '$(touch /tmp/x); `id` "quoted" *';
    const { output } = await node('process.stdout.write(process.argv[1])', {}, nasty);
    expect(output.toString()).toBe(nasty);
  });

  it('feeds standard input and further pipes at once, however much', async () => {
    const bytes = 3_000_000;
    const feed = async (to: Parameters<typeof write>[0]) => {
      for (let i = 0; i < 30; i += 1) await write(to, Buffer.alloc(bytes / 30));
    };
    const count =
      'const fs=require("fs");let n=0;for(const fd of [0,3])for(;;){let ' +
      'k=0;try{k=fs.readSync(fd,Buffer.alloc(65536))}catch(e){if(e.code==="EAGAIN")continue;throw ' +
      'e}if(!k)break;n+=k}process.stdout.write(String(n))';
    const { output } = await node(count, { feed: { stdin: feed, pipes: [feed] } });
    expect(Number(output.toString())).toBe(2 * bytes);
  });

  it('ends quietly when the program closes a pipe early and is content', async () => {
    const { output } = await node('process.stdout.write("enough");process.exit(0)', {
      feed: { stdin: (to) => write(to, Buffer.alloc(5_000_000)) },
    });
    expect(output.toString()).toBe('enough');
  });

  it('tells failure with the last words, a full disk as such, and a missing program', async () => {
    const failed = await node('console.error("first\\nno such codec");process.exit(3)').catch(
      (error: unknown) => error,
    );
    expect(failed).toBeInstanceOf(ProgramError);
    expect((failed as ProgramError).message).toContain('no such codec');
    const full = await node('console.error("x: No space left on device");process.exit(1)').catch(
      (error: unknown) => error,
    );
    expect((full as ProgramError).outOfDisk).toBe(true);
    await expect(run('no-such-program', [])).rejects.toThrow('ENOENT');
  });

  it('stops what says nothing for too long, and what is cancelled', async () => {
    await expect(node('setInterval(()=>{},1000)', { stallMs: 300 })).rejects.toThrow('no progress');
    const stop = new AbortController();
    setTimeout(() => stop.abort(), 200);
    await expect(
      node('setInterval(()=>console.log(1),50)', { signal: stop.signal }),
    ).rejects.toBeInstanceOf(CancelledError);
    await expect(node('0', { signal: stop.signal })).rejects.toBeInstanceOf(CancelledError);
  });
});
