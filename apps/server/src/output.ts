/**
 * Goes on when whoever read what this process prints is gone (a closed terminal, `| head`): a
 * server that dies of it leaves its database behind.
 */
export function surviveClosedOutput(): void {
  for (const stream of [process.stdout, process.stderr]) {
    stream.on('error', (error: NodeJS.ErrnoException) => {
      if (error.code !== 'EPIPE' && error.code !== 'EIO') throw error;
    });
  }
}
