import { describe, expect, test } from 'vitest';
import { packetIn } from './packet';

const bytes = (text: string) => new TextEncoder().encode(text);
const meta = '<x:xmpmeta xmlns:x="urn:meta"><a>Ü</a></x:xmpmeta>';
const packet = `<?xpacket begin="\ufeff" id="W5M0MpCehiHzreSzNTczkc9d"?>\n${meta}\n   <?xpacket end="w"?>`;
const found = (given: Uint8Array) => {
  const inside = packetIn(given);
  return inside && new TextDecoder().decode(inside).trim();
};

describe('the packet of a file', () => {
  test('is found between other bytes, and alone', () => {
    const around = new Uint8Array([0xff, 0xd8, 0x3c, 0x3f, 0x78, ...bytes(packet), 0xff, 0xd9, 0x3c]);
    expect(found(around)).toBe(meta);
    expect(found(bytes(packet))).toBe(meta);
    expect(found(bytes(meta))).toBe(meta);
  });
  test('need not have the root that is usual', () => {
    const bare = '<rdf:RDF/>';
    expect(found(bytes(packet.replace(meta, bare)))).toBe(bare);
  });
  test('is the first of several', () => {
    expect(found(bytes(`${packet}${packet.replace('Ü', 'other')}`))).toBe(meta);
  });
  test('is none where there is none, or where it is cut off', () => {
    expect(packetIn(bytes('nothing of the kind < <? <x'))).toBeNull();
    expect(packetIn(new Uint8Array(0))).toBeNull();
    expect(packetIn(bytes(packet).slice(0, 90))).toBeNull();
    expect(packetIn(bytes('<?xpacket begin=""'))).toBeNull();
  });
});
