import { spawn, type ChildProcess } from 'node:child_process';
import { createHash, X509Certificate } from 'node:crypto';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import https from 'node:https';
import os from 'node:os';
import path from 'node:path';
import { expect, test, type Browser, type Page } from '@playwright/test';
import { generate } from 'selfsigned';
import {
  bench,
  discard,
  freePort,
  linkOf,
  makeOwner,
  openBrowser,
  openPage,
  readText,
  shareWith,
  startLesson,
  startZest,
  type Zest,
} from './zest.ts';

const NAME = 'quay.test';
let folder: string;

test.beforeAll(() => {
  folder = mkdtempSync(path.join(os.tmpdir(), 'zest-proxy-'));
});
test.afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** A browser that knows the name, and trusts the certificate as a device does that was told to. */
function browserFor(certificate: string): Promise<Browser> {
  const key = new X509Certificate(certificate).publicKey.export({ type: 'spki', format: 'der' });
  return openBrowser(undefined, [
    `--host-resolver-rules=MAP ${NAME} 127.0.0.1`,
    `--ignore-certificate-errors-spki-list=${createHash('sha256').update(key).digest('base64')}`,
  ]);
}

/** Shares a new lesson; gives the link as it is shown. */
async function shareLesson(page: Page): Promise<string> {
  await startLesson(page, 'From afar');
  await page.getByRole('button', { name: '+ Work and rest' }).click();
  await bench(page, 'Share');
  await shareWith(page, 'Whoever has the link');
  return linkOf(page);
}

/** A family's phone opens it, keeps it, and has it without a connection. */
async function keepsOffline(browser: Browser, link: string): Promise<void> {
  const phone = await browser.newContext();
  const student = await phone.newPage();
  await student.goto(link);
  await expect(student.getByText('Saved on this device')).toBeVisible();
  await phone.setOffline(true);
  await student.reload();
  await expect(student.getByRole('heading', { name: 'From afar' })).toBeVisible();
  await phone.close();
}

/** The status of a wrong sign-in that comes from that address of this machine. */
const wrongSignIn = (port: number, localAddress: string) =>
  new Promise<number>((resolve, reject) => {
    const headers = {
      'content-type': 'application/json',
      origin: `https://${NAME}:${port}`,
      host: `${NAME}:${port}`,
    };
    const request = https.request(
      {
        host: '127.0.0.1',
        port,
        localAddress,
        method: 'POST',
        path: '/api/session',
        headers,
        rejectUnauthorized: false,
      },
      (answer) => {
        answer.resume().once('end', () => resolve(answer.statusCode ?? 0));
      },
    );
    request
      .on('error', reject)
      .end(JSON.stringify({ login: 'quay-coach', password: 'not the password' }));
  });

test('behind HAProxy links, cookies and limits are those of the visitors', async () => {
  const { cert, private: key } = await generate([{ name: 'commonName', value: NAME }], {
    keyType: 'ec',
    extensions: [{ name: 'subjectAltName', altNames: [{ type: 2, value: NAME }] }],
  });
  const [port, behind] = [await freePort(), await freePort()];
  const zest: Zest = await startZest('start', undefined, behind, [
    '--trust-proxy',
    '127.0.0.1',
    '--address',
    `https://${NAME}:${port}`,
  ]);
  writeFileSync(path.join(folder, 'site.pem'), `${cert}\n${key}`);
  // As docs/operations.md says.
  const settings = `
global
  maxconn 200
defaults
  mode http
  timeout connect 5s
  timeout client 1h
  timeout server 1h
frontend families
  bind 127.0.0.1:${port} ssl crt ${path.join(folder, 'site.pem')}
  option forwardfor
  http-request set-header X-Forwarded-Proto https
  http-request set-header X-Forwarded-Host %[req.hdr(host)]
  default_backend lessons
backend lessons
  server zest 127.0.0.1:${behind}
`;
  writeFileSync(path.join(folder, 'haproxy.cfg'), settings);
  const proxy: ChildProcess = spawn('haproxy', ['-db', '-f', path.join(folder, 'haproxy.cfg')], {
    stdio: 'inherit',
    env: { ...process.env, PATH: `${process.env['PATH'] ?? ''}:/usr/sbin` },
  });
  const browser = await browserFor(cert);
  try {
    const { page, faults } = await openPage(browser);
    const address = `https://${NAME}:${port}`;
    await expect.poll(() => wrongSignIn(port, '127.0.0.1').catch(() => 0)).toBeGreaterThan(0);
    await makeOwner(page, address);
    expect((await page.context().cookies()).find(({ name }) => name === 'zest.sid')).toMatchObject({
      secure: true,
      httpOnly: true,
    });
    const link = await shareLesson(page);
    expect(link.startsWith(`${address}/follow/`)).toBe(true);
    await expect(page.getByText('Others cannot open these links yet')).toBeHidden();
    await keepsOffline(browser, link);
    const answers = [];
    for (let i = 0; i < 12; i += 1) answers.push(await wrongSignIn(port, '127.0.0.7'));
    expect(answers.at(-1)).toBe(429);
    // Nobody else is locked out.
    expect(await wrongSignIn(port, '127.0.0.8')).toBe(401);
    expect(faults).toEqual([]);
  } finally {
    await browser.close();
    proxy.kill();
    await discard(zest);
  }
});

test('it speaks HTTPS by itself, by a certificate made at first use', async () => {
  const port = await freePort();
  const address = `https://${NAME}:${port}`;
  const zest = await startZest('start', undefined, port, ['--https', '--address', address]);
  const certificate = readText(path.join(zest.dataDir, 'tls/certificate.pem'));
  const browser = await browserFor(certificate);
  try {
    expect(zest.url).toBe(`https://127.0.0.1:${port}`);
    expect(new X509Certificate(certificate).checkHost(NAME)).toBe(NAME);
    const { page, faults } = await openPage(browser);
    await makeOwner(page, address);
    await keepsOffline(browser, await shareLesson(page));
    expect(faults).toEqual([]);
  } finally {
    await browser.close();
    await discard(zest);
  }
});
