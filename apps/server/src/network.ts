import os from 'node:os';

/** The IPv4 addresses of this machine. */
export const ownAddresses = (): os.NetworkInterfaceInfo[] =>
  Object.values(os.networkInterfaces())
    .flatMap((addresses) => addresses ?? [])
    .filter(({ family }) => family === 'IPv4');
