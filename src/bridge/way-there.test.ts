import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { realWays, wayThere, type Ways } from './way-there';

const NOW = new Date('2026-12-01T12:00:00Z');
const fails = (code: string) => () => Promise.reject(Object.assign(new Error(code), { code }));
const well: Ways = {
  lookup: async () => '192.0.2.7',
  connect: async () => undefined,
  secure: async () => new Date('2027-03-01'),
};
const way = (ways: Partial<Ways>) => wayThere('https://signs.example.org', NOW, { ...well, ...ways });

test('where all is well each step says so; without TLS there is no step for it', async () => {
  expect(await way({})).toEqual([
    { name: 'Name', isOk: true, words: 'signs.example.org is 192.0.2.7.' },
    { name: 'Address', isOk: true, words: '192.0.2.7 answers on port 443.' },
    { name: 'TLS', isOk: true, words: 'The certificate of signs.example.org is valid until 2027-03-01.' },
  ]);
  expect(await wayThere('http://[::1]:8080', NOW, well)).toHaveLength(2);
});

test.each<[string, Partial<Ways>, string, RegExp]>([
  ['a name that nobody knows', { lookup: fails('ENOTFOUND') }, 'Name', /^The network doesn’t know the name signs/],
  ['a name server that is silent', { lookup: fails('EAI_AGAIN') }, 'Name', /name server \(DNS\) doesn’t answer/],
  [
    'a port that is closed',
    { connect: fails('ECONNREFUSED') },
    'Address',
    /^192\.0\.2\.7 is there, but nothing answers on port 443/,
  ],
  [
    'a cable that is out',
    { connect: fails('EHOSTUNREACH') },
    'Address',
    /^192\.0\.2\.7 can’t be reached from this network/,
  ],
  ['a firewall', { connect: fails('ETIMEDOUT') }, 'Address', /^192\.0\.2\.7 doesn’t answer on port 443\. A firewall/],
  [
    'a wrong date',
    { secure: fails('CERT_NOT_YET_VALID') },
    'TLS',
    /isn’t valid on 2026-12-01, which is the date of this device/,
  ],
  [
    'a certificate of another name',
    { secure: fails('ERR_TLS_CERT_ALTNAME_INVALID') },
    'TLS',
    /for another name than signs/,
  ],
  [
    'a proxy with a certificate of its own',
    { secure: fails('SELF_SIGNED_CERT_IN_CHAIN') },
    'TLS',
    /doesn’t know who made/,
  ],
  [
    'no TLS at all',
    { secure: fails('EPROTO') },
    'TLS',
    /^The secure connection to signs\.example\.org failed \(EPROTO\)/,
  ],
])('%s is told, and nothing after it is tried', async (_what, ways, name, words) => {
  const last = (await way(ways)).at(-1);
  expect(last).toEqual({ name, isOk: false, words: expect.stringMatching(words) });
});

test('this machine finds a server of its own, sees that a port is closed, and that a server has no TLS', async () => {
  const server = createServer().listen(0, '127.0.0.1');
  await new Promise((listening) => server.once('listening', listening));
  const { port } = server.address() as AddressInfo;
  const told = async (origin: string) => (await wayThere(origin, NOW, realWays)).map(({ name, isOk }) => [name, isOk]);
  expect(await told(`http://127.0.0.1:${port}`)).toEqual([
    ['Name', true],
    ['Address', true],
  ]);
  expect(await told(`https://127.0.0.1:${port}`)).toEqual([
    ['Name', true],
    ['Address', true],
    ['TLS', false],
  ]);
  await new Promise((closed) => server.close(closed));
  expect(await told(`http://127.0.0.1:${port}`)).toEqual([
    ['Name', true],
    ['Address', false],
  ]);
  expect(await told('https://no-such-name.invalid')).toEqual([['Name', false]]);
});
