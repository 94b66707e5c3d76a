/** The way to the server: through a proxy, and to a certificate of the house. Each against real sockets. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer, type RequestListener } from 'node:http';
import { createServer as createSecureServer } from 'node:https';
import { connect, type AddressInfo, type Server as NetServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, afterEach, beforeAll, describe, expect, test } from 'vitest';
import { Agent, setGlobalDispatcher } from 'undici';
import { takeWay } from './network';
import { Server } from './server';

const folder = mkdtempSync(join(tmpdir(), 'etagere-network-'));
const [key, certificate] = [join(folder, 'key.pem'), join(folder, 'cert.pem')];
const open: NetServer[] = [];

const listening = async (server: NetServer): Promise<number> => {
  open.push(server);
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
  return (server.address() as AddressInfo).port;
};
const answers: RequestListener = (_request, response) => {
  response.writeHead(200, { 'content-type': 'application/json' });
  response.end('{"station":"Desk"}');
};

/** A proxy that leads every name to this machine, and writes down where it was asked to lead. */
async function proxyTo(port: number): Promise<{ url: string; asked: string[] }> {
  const asked: string[] = [];
  const proxy = createServer();
  proxy.on('connect', (request, socket) => {
    asked.push(request.url ?? '');
    const there = connect(port, '127.0.0.1', () => {
      socket.write('HTTP/1.1 200 Connection Established\r\n\r\n');
      there.pipe(socket).pipe(there);
    });
    for (const one of [there, socket]) one.on('error', () => there.destroy());
  });
  return { url: `http://127.0.0.1:${await listening(proxy)}`, asked };
}

beforeAll(() => {
  const subject = ['-subj', '/CN=localhost', '-addext', 'subjectAltName=DNS:localhost,IP:127.0.0.1'];
  const how = ['req', '-x509', '-newkey', 'ec', '-pkeyopt', 'ec_paramgen_curve:prime256v1', '-nodes', '-days', '2'];
  execFileSync('openssl', [...how, '-keyout', key, '-out', certificate, ...subject], { stdio: 'ignore' });
});
afterEach(() => {
  setGlobalDispatcher(new Agent());
  for (const server of open.splice(0)) server.close();
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

describe('the way to the server', () => {
  test('leads through the proxy that is named, and past it where nothing is said', async () => {
    const port = await listening(createServer(answers));
    const { url, asked } = await proxyTo(port);
    const server = new Server('http://studio.house:4310', 'token');
    await takeWay({ proxy: url }, {});
    expect(await server.instructions()).toMatchObject({ station: 'Desk' });
    expect(asked).toEqual(['studio.house:4310']);
    setGlobalDispatcher(new Agent());
    await takeWay({}, {});
    expect(await new Server(`http://127.0.0.1:${port}`, 'token').instructions()).toMatchObject({ station: 'Desk' });
    expect(asked).toHaveLength(1);
  });

  test('trusts the authority that is named, and no other', async () => {
    const secure = createSecureServer({ key: readFileSync(key), cert: readFileSync(certificate) }, answers);
    const server = new Server(`https://localhost:${await listening(secure)}`, 'token');
    await expect(server.instructions()).rejects.toThrow('fetch failed');
    await takeWay({ authority: certificate }, {});
    expect(await server.instructions()).toMatchObject({ station: 'Desk' });
  });

  test('does both at once', async () => {
    const secure = createSecureServer({ key: readFileSync(key), cert: readFileSync(certificate) }, answers);
    const { url, asked } = await proxyTo(await listening(secure));
    await takeWay({ proxy: url, authority: certificate }, {});
    expect(await new Server('https://localhost:4310', 'token').instructions()).toMatchObject({ station: 'Desk' });
    expect(asked).toEqual(['localhost:4310']);
  });

  test('is refused with words where the authority is none', async () => {
    const empty = join(folder, 'empty.pem');
    writeFileSync(empty, 'nothing');
    await expect(takeWay({ authority: empty }, {})).rejects.toThrow('holds no certificate in PEM form');
    await expect(takeWay({ authority: join(folder, 'gone.pem') }, {})).rejects.toThrow('cannot be read');
  });
});
