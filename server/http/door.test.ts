import { describe, expect, test } from 'vitest';
import { letIn, NETWORK_HEADER, networkOf } from './door';

describe('the network of an address', () => {
  test.each([
    ['192.0.2.7', '192.0.2.7'],
    ['::ffff:192.0.2.7', '192.0.2.7'],
    ['2001:db8:1:2:3:4:5:6', '2001:db8:1:2::/64'],
    ['2001:db8:1:2:ffff::1', '2001:db8:1:2::/64'],
    ['2001:0db8:0001:0002::', '2001:db8:1:2::/64'],
    ['fe80::1%eth0', 'fe80:0:0:0::/64'],
    ['::1', '0:0:0:0::/64'],
    ['', 'unknown'],
    ['<script>', 'unknown'],
  ])('%s is %s', (address, network) => expect(networkOf(address)).toBe(network));
});

describe('at the door', () => {
  const told = { 'x-forwarded-for': '203.0.113.1, 198.51.100.9', 'x-forwarded-host': 'elsewhere', host: 'etagere' };

  test('nobody is believed who says where it comes from', () => {
    const headers = { ...told, [NETWORK_HEADER]: 'mine' };
    letIn(headers, '192.0.2.7', false);
    expect(headers).toEqual({ host: 'etagere', [NETWORK_HEADER]: '192.0.2.7' });
  });

  test('of what a proxy of ours says, its own word counts, which is the last', () => {
    const headers = { ...told };
    letIn(headers, '127.0.0.1', true);
    expect(headers).toEqual({ ...told, [NETWORK_HEADER]: '198.51.100.9' });
  });

  test('a proxy that says nothing stands for itself', () => {
    const headers = { host: 'etagere' };
    letIn(headers, '127.0.0.1', true);
    expect(headers).toMatchObject({ [NETWORK_HEADER]: '127.0.0.1' });
  });
});
