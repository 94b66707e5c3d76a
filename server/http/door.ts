/**
 * From where a request comes, told before anything else looks at it. What a caller says of that itself is believed only
 * where a proxy of ours stands in front, and then its own word alone, which is the last.
 */
import type { IncomingHttpHeaders } from 'node:http';
import { isIP } from 'node:net';

/** Under which header the rest of the application finds the network; nobody outside can set it. */
export const NETWORK_HEADER = 'x-etagere-network';

const forwarded = [
  'forwarded',
  'x-forwarded-for',
  'x-forwarded-host',
  'x-forwarded-proto',
  'x-forwarded-port',
  'x-real-ip',
];

/**
 * An address as the network that counts as one caller: an IPv4 address by itself, the first 64 bits of an IPv6 address,
 * as anybody has all the addresses below those. "unknown" for what is no address.
 */
export function networkOf(address: string): string {
  const plain = address.replace(/^::ffff:(?=\d+\.\d+\.\d+\.\d+$)/i, '');
  if (isIP(plain) === 4) return plain;
  const [bare = ''] = plain.split('%');
  if (isIP(bare) !== 6) return 'unknown';
  const [before = '', after] = bare.split('::');
  const head = before.split(':').filter(Boolean);
  const tail = (after ?? '').split(':').filter(Boolean);
  const groups =
    after === undefined ? head : [...head, ...Array<string>(8 - head.length - tail.length).fill('0'), ...tail];
  return `${groups
    .slice(0, 4)
    .map((group) => parseInt(group, 16).toString(16))
    .join(':')}::/64`;
}

/** @param headers changed in place @param peer the other end of the connection @param trusted whether that is a proxy of ours */
export function letIn(headers: IncomingHttpHeaders, peer: string, trusted: boolean): void {
  const said = trusted
    ? String(headers['x-forwarded-for'] ?? '')
        .split(',')
        .at(-1)
        ?.trim()
    : undefined;
  const address = said || peer;
  if (!trusted) for (const name of forwarded) delete headers[name];
  headers[NETWORK_HEADER] = networkOf(address);
}
