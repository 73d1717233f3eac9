import { IncomingMessage } from 'node:http';
import { Socket } from 'node:net';
import { clientAddress, settleAddress, trustedProxies } from './addresses';

const PROXIES = trustedProxies('10.0.0.0/8, 192.0.2.7  2001:db8::/32');

test.each([
  ['nobody is trusted unless it is named', '203.0.113.5', '198.51.100.1', '203.0.113.5'],
  ['a trusted proxy tells whom it serves', '10.1.2.3', '198.51.100.1', '198.51.100.1'],
  ['through two of them', '10.1.2.3', '198.51.100.1, 192.0.2.7', '198.51.100.1'],
  ['what a stranger wrote before the proxy did is not believed', '10.1.2.3', '1.2.3.4, 198.51.100.1', '198.51.100.1'],
  ['an IPv4 address in IPv6 clothes', '::ffff:10.1.2.3', '::ffff:198.51.100.1', '198.51.100.1'],
  ['IPv6', '2001:db8::1', '2001:db9::5', '2001:db9::5'],
  ['a proxy that says nothing', '10.1.2.3', undefined, '10.1.2.3'],
  ['a proxy that says nonsense', '10.1.2.3', 'unknown', '10.1.2.3'],
  ['proxies alone', '10.1.2.3', '10.0.0.1', '10.0.0.1'],
])('%s', (_, peer, forwarded, address) => {
  expect(clientAddress(peer, forwarded, PROXIES)).toBe(address);
});

test('without the setting no address is believed', () => {
  expect(clientAddress('127.0.0.1', '198.51.100.1', trustedProxies(''))).toBe('127.0.0.1');
});

test.each(['10.0.0', 'proxy.example', '10.0.0.0/33', '10.0.0.0/x', '10.0.0.0/8/8', '2001:db8::/129'])(
  '"%s" is refused with a sentence',
  (text) => {
    expect(() => trustedProxies(text)).toThrow(`“${text}” isn’t an address or a subnet.`);
  },
);

describe('a request as the pages see it', () => {
  const settled = (peer: string, headers: Record<string, string>) => {
    const request = new IncomingMessage(Object.defineProperty(new Socket(), 'remoteAddress', { value: peer }));
    Object.assign(request.headers, headers);
    settleAddress(request, PROXIES);
    return request.headers;
  };

  test('of a stranger no forwarding header is left', () => {
    expect(
      settled('203.0.113.5', {
        ...{ host: 'a', forwarded: 'for=1.2.3.4', 'x-forwarded-host': 'evil', 'x-forwarded-proto': 'https' },
        ...{ 'x-real-ip': '1.2.3.4', 'x-forwarded-port': '1', 'x-forwarded-for': '1.2.3.4' },
      }),
    ).toEqual({ host: 'a', 'x-forwarded-for': '203.0.113.5' });
  });

  test('what a trusted proxy says of host and protocol stays', () => {
    expect(
      settled('10.0.0.1', { 'x-forwarded-proto': 'https', 'x-forwarded-host': 'signs', 'x-forwarded-for': '5.6.7.8' }),
    ).toEqual({ 'x-forwarded-proto': 'https', 'x-forwarded-host': 'signs', 'x-forwarded-for': '5.6.7.8' });
  });
});
