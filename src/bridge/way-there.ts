import { lookup } from 'node:dns/promises';
import { connect, isIP, type Socket } from 'node:net';
import { connect as secure, type TLSSocket } from 'node:tls';
import type { WayStep } from '@/protocol/bridge';

const PATIENCE_MS = 5000;

/** How this device reaches a server. Tests have ways of their own. */
export interface Ways {
  /** The address of a name. Throws as Node does. */
  lookup(name: string): Promise<string>;
  /** Opens a connection and closes it. Throws as Node does. */
  connect(address: string, port: number): Promise<void>;
  /** The same with TLS: until when the certificate is valid. Throws as Node does. */
  secure(name: string, address: string, port: number): Promise<Date>;
}

export const realWays: Ways = {
  lookup: async (name) => (await lookup(name)).address,
  connect: (host, port) => opened(() => connect({ host, port, timeout: PATIENCE_MS }), 'connect').then(() => undefined),
  secure: async (name, host, port) =>
    new Date(
      (await opened(
        () => secure({ host, port, servername: isIP(name) ? '' : name, timeout: PATIENCE_MS }),
        'secureConnect',
      )) ?? '',
    ),
};

/** Opens a socket, waits for an event of it, and closes it: until when its certificate is valid, if it has one. */
function opened<S extends Socket>(open: () => S, event: 'connect' | 'secureConnect'): Promise<string | null> {
  return new Promise((done, failed) => {
    const socket = open();
    socket.once(event, () => {
      done('getPeerCertificate' in socket ? (socket as unknown as TLSSocket).getPeerCertificate().valid_to : null);
      socket.destroy();
    });
    socket.once('timeout', () => socket.destroy(Object.assign(new Error('timeout'), { code: 'ETIMEDOUT' })));
    socket.once('error', failed);
  });
}

/**
 * The way to a server, step by step, for its player: a browser only says that something of it failed. Ends after the step that fails.
 */
export async function wayThere(origin: string, now: Date, ways: Ways = realWays): Promise<WayStep[]> {
  const { hostname, port, protocol } = new URL(origin);
  const number = Number(port || (protocol === 'https:' ? 443 : 80));
  // Literal addresses of version 6 are in brackets.
  const host = hostname.replace(/^\[|\]$/g, '');
  const steps: WayStep[] = [];
  const step = async (name: WayStep['name'], work: () => Promise<string>, why: (code: string) => string) => {
    try {
      steps.push({ name, isOk: true, words: await work() });
      return true;
    } catch (error) {
      const { code = '', message = '' } = error as { code?: string; message?: string };
      steps.push({ name, isOk: false, words: why(code || message) });
      return false;
    }
  };
  let address = '';
  const isKnown = await step(
    'Name',
    async () => `${host} is ${(address = await ways.lookup(host))}.`,
    (code) => nameTrouble(host, code),
  );
  if (!isKnown) return steps;
  const isThere = await step(
    'Address',
    async () => {
      await ways.connect(address, number);
      return `${address} answers on port ${number}.`;
    },
    (code) => addressTrouble(address, number, code),
  );
  if (isThere && protocol === 'https:')
    await step(
      'TLS',
      async () => `The certificate of ${host} is valid until ${day(await ways.secure(host, address, number))}.`,
      (code) => tlsTrouble(host, code, now),
    );
  return steps;
}

const day = (at: Date) => at.toISOString().slice(0, 10);

function nameTrouble(host: string, code: string): string {
  return code === 'ENOTFOUND'
    ? `The network doesn’t know the name ${host}. Check how it is spelled, and the network’s name server (DNS).`
    : 'The network’s name server (DNS) doesn’t answer. Check its address, and that the device has an address of its own.';
}

function addressTrouble(address: string, port: number, code: string): string {
  if (code === 'ECONNREFUSED')
    return `${address} is there, but nothing answers on port ${port}. Check that the server runs, and its port.`;
  if (code === 'ENETUNREACH' || code === 'EHOSTUNREACH')
    return `${address} can’t be reached from this network. Check the cable and the router.`;
  return `${address} doesn’t answer on port ${port}. A firewall may block it, or the address is wrong.`;
}

function tlsTrouble(host: string, code: string, now: Date): string {
  switch (code) {
    case 'CERT_HAS_EXPIRED':
    case 'CERT_NOT_YET_VALID':
      return `The certificate of ${host} isn’t valid on ${day(now)}, which is the date of this device. Check the date; if it is right, the server needs a new certificate.`;
    case 'ERR_TLS_CERT_ALTNAME_INVALID':
      return `The certificate is for another name than ${host}. A proxy or another server may be answering.`;
    case 'DEPTH_ZERO_SELF_SIGNED_CERT':
    case 'SELF_SIGNED_CERT_IN_CHAIN':
    case 'UNABLE_TO_VERIFY_LEAF_SIGNATURE':
    case 'UNABLE_TO_GET_ISSUER_CERT_LOCALLY':
      return 'This device doesn’t know who made the certificate. A proxy may be in between, or your own authority must be installed on the device.';
    default:
      return `The secure connection to ${host} failed (${code}). A proxy may be in between.`;
  }
}
