import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { freePort } from '../db/mariadb.ts';
import { startListening } from './listening.ts';

/** As the guide to several machines says, but for how often it looks. */
const rules = (port: number, servers: readonly number[]) => `
defaults
  mode http
  timeout connect 2s
  timeout check 10s
  timeout client 1h
  timeout server 1h
frontend lessons
  bind 127.0.0.1:${port}
  option forwardfor
  stats enable
  stats uri /balancer
  http-request set-header X-Forwarded-Host %[req.hdr(host)]
  http-request disable-l7-retry if METH_POST
  default_backend web
backend web
  balance roundrobin
  option httpchk GET /api/health
  default-server check inter 200ms fall 2 rise 1
  option redispatch
  retries 3
  retry-on conn-failure empty-response response-timeout
${servers.map((one) => `  server at-${one} 127.0.0.1:${one}`).join('\n')}
`;

/** HAProxy on loopback before web servers on these ports. */
export async function startBalancer(servers: readonly number[]) {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'zest-test-balancer-'));
  const port = await freePort();
  const file = path.join(folder, 'balancer.cfg');
  writeFileSync(file, rules(port, servers));
  const running = await startListening('haproxy', ['-f', file], port);
  return {
    origin: `http://127.0.0.1:${port}`,
    /** Whether it has seen that a server is there. */
    async isUp(server: number): Promise<boolean> {
      const answer = await fetch(`http://127.0.0.1:${port}/balancer;csv`);
      const line = (await answer.text())
        .split('\n')
        .find((one) => one.startsWith(`web,at-${server},`));
      return line?.split(',')[17] === 'UP';
    },
    async stop() {
      await running.end();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}
export type TestBalancer = Awaited<ReturnType<typeof startBalancer>>;
