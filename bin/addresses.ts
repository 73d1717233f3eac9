import type { IncomingMessage } from 'node:http';
import { BlockList, isIP } from 'node:net';

/** Where requests come from. What a header says counts only where a proxy that the operator names has said it. */

/** An IPv4 address that is written as an IPv6 one is that IPv4 address. */
const plain = (address: string) => address.trim().replace(/^::ffff:(?=\d+\.\d+\.\d+\.\d+$)/i, '');

const familyOf = (address: string) => (isIP(address) === 6 ? 'ipv6' : 'ipv4');

/** Reads LANTERNPOST_TRUSTED_PROXIES: addresses and subnets (CIDR), by commas or spaces. Throws with a sentence for what is none. */
export function trustedProxies(text = process.env.LANTERNPOST_TRUSTED_PROXIES ?? ''): BlockList {
  const list = new BlockList();
  for (const part of text.split(/[\s,]+/).filter((one) => one !== '')) {
    const [address = '', prefix, rest] = part.split('/');
    const most = isIP(address) === 6 ? 128 : 32;
    const bits = prefix === undefined ? most : Number(prefix);
    if (isIP(address) === 0 || rest !== undefined || !/^\d{1,3}$/.test(prefix ?? '0') || bits > most)
      throw new Error(
        `LANTERNPOST_TRUSTED_PROXIES: “${part}” isn’t an address or a subnet. Write it like 10.0.0.7, or 10.0.0.0/8.`,
      );
    list.addSubnet(address, bits, familyOf(address));
  }
  return list;
}

/**
 * The address that a request comes from: the peer's own; or if the peer is a trusted proxy, the last one in `X-Forwarded-For` that isn't one.
 * An entry that isn't an address ends the search, and the last trusted proxy's address is used.
 */
export function clientAddress(peer: string, forwarded: string | undefined, trusted: BlockList): string {
  let address = plain(peer);
  const chain = (forwarded ?? '').split(',').map(plain);
  while (trusted.check(address, familyOf(address))) {
    const before = chain.pop();
    if (before === undefined || isIP(before) === 0) break;
    address = before;
  }
  return address;
}

/** Headers in which a proxy describes the request that it passes on. */
const TOLD_BY_PROXIES = ['forwarded', 'x-forwarded-host', 'x-forwarded-proto', 'x-forwarded-port', 'x-real-ip'];

/** Writes the one address that counts into a request's `X-Forwarded-For`, and removes what untrusted senders wrote. */
export function settleAddress(request: IncomingMessage, trusted: BlockList): void {
  const peer = plain(request.socket.remoteAddress ?? '0.0.0.0');
  const said = request.headers['x-forwarded-for'];
  request.headers['x-forwarded-for'] = clientAddress(peer, Array.isArray(said) ? said.join() : said, trusted);
  if (!trusted.check(peer, familyOf(peer)))
    for (const name of TOLD_BY_PROXIES) Reflect.deleteProperty(request.headers, name);
}
