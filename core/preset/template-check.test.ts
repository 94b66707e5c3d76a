import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, test } from 'vitest';
import { parseDescriptor } from '../editor/descriptor';
import { Problem } from '../problem';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import marlstone3 from '@/standins/descriptors/marlstone-3.json';

/** What a descriptor is refused for; null where it is taken. */
function refusal(descriptor: object): { message: string; where: string } | null {
  try {
    parseDescriptor(descriptor, 'd.json');
    return null;
  } catch (error) {
    if (error instanceof Problem) return { message: error.message, where: error.where };
    throw error;
  }
}
const withTemplate = <D extends { presets: object }>(descriptor: D, template: string) => ({
  ...descriptor,
  presets: { ...descriptor.presets, template },
});

describe('the empty preset of a descriptor', () => {
  test('of every descriptor that ships can serve', () => {
    for (const name of readdirSync('standins/descriptors'))
      expect(refusal(JSON.parse(readFileSync(`standins/descriptors/${name}`, 'utf8')) as object), name).toBeNull();
  });
  test('that is no valid container is refused at its place', () => {
    expect(refusal(withTemplate(oxbow2, '<rdf:RDF'))).toMatchObject({ where: 'd.json, presets.template' });
    expect(refusal(withTemplate(oxbow2, '<rdf:RDF'))?.message).toMatch(/^The empty preset cannot be read as XMP: /);
    expect(refusal(withTemplate(marlstone3, 'neither section nor key'))?.message).toMatch(/line 1/);
  });
  test('that is not empty is refused with what it says', () => {
    const full = '[marlstone]\nedition=3\n[light]\namount=50\ndeepen=10\n';
    expect(refusal(withTemplate(marlstone3, full))?.message).toBe('The empty preset is not empty: it says Level, Toe.');
  });
});
