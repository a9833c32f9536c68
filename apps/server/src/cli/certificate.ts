import { X509Certificate } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { generate, type SubjectAltNameEntry } from 'selfsigned';
import { ownAddresses } from '../network.ts';

/** Files of a certificate and its key, PEM. */
export interface Certificate {
  cert: string;
  key: string;
}

const DAY_MS = 86_400_000;
/** Browsers take no longer ones. */
const GOOD_FOR_DAYS = 397;
const RENEW_DAYS = 30;

/** Names and addresses by which this machine may be opened. */
function namesOfMachine(address: string | null): SubjectAltNameEntry[] {
  const given = address === null ? [] : [new URL(address).hostname];
  const dns = new Set([
    'localhost',
    os.hostname(),
    `${os.hostname()}.local`,
    ...given.filter((name) => !/^[\d.]+$/.test(name)),
  ]);
  const ips = new Set([
    ...ownAddresses().map((one) => one.address),
    ...given.filter((name) => /^[\d.]+$/.test(name)),
  ]);
  return [
    ...[...dns].map((value): SubjectAltNameEntry => ({ type: 2, value })),
    ...[...ips].map((ip): SubjectAltNameEntry => ({ type: 7, ip })),
  ];
}

/**
 * The certificate of an installation that speaks HTTPS itself: made at first use, and anew before
 * it ends or when this machine is called something else. Devices have to be told once to trust it.
 * @throws with words when the folder cannot be written
 */
export async function certificateIn(dataDir: string, address: string | null): Promise<Certificate> {
  const folder = path.join(dataDir, 'tls');
  const files = { cert: path.join(folder, 'certificate.pem'), key: path.join(folder, 'key.pem') };
  const names = namesOfMachine(address);
  if (existsSync(files.cert) && existsSync(files.key)) {
    const there = new X509Certificate(readFileSync(files.cert));
    const isGood = names.every(
      ({ type, value, ip }) =>
        (type === 2 ? there.checkHost(value ?? '') : there.checkIP(ip ?? '')) !== undefined,
    );
    if (isGood && Date.parse(there.validTo) > Date.now() + RENEW_DAYS * DAY_MS) return files;
  }
  const made = await generate([{ name: 'commonName', value: 'Zest Frame' }], {
    keyType: 'ec',
    notAfterDate: new Date(Date.now() + GOOD_FOR_DAYS * DAY_MS),
    extensions: [
      { name: 'basicConstraints', cA: true },
      { name: 'subjectAltName', altNames: names },
      { name: 'extKeyUsage', serverAuth: true },
    ],
  });
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  writeFileSync(files.key, made.private, { mode: 0o600 });
  writeFileSync(files.cert, made.cert);
  return files;
}
