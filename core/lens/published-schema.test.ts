/** The schema of lens databases that is published, against what is read, computed and written here. */
import { readFileSync } from 'node:fs';
import { XmlDocument, XsdValidator } from 'libxml2-wasm';
import { afterAll, describe, expect, test } from 'vitest';
import { convertDatabase } from './convert';
import { directionNames, UNIT } from './correction';
import { fitted } from './fit';
import { modelOf, quantities } from './models';

const path = 'docs/formats/lens-database.xsd';
const schema = XmlDocument.fromString(readFileSync(path, 'utf8'));
const validator = XsdValidator.fromDoc(schema);
afterAll(() => {
  validator.dispose();
  schema.dispose();
});

function valid(text: string): true | string {
  const document = XmlDocument.fromString(text);
  try {
    validator.validate(document);
    return true;
  } catch (error) {
    return (error as Error).message;
  } finally {
    document.dispose();
  }
}
const enumeration = (type: string): string[] =>
  schema
    .find(`//xs:simpleType[@name="${type}"]//xs:enumeration/@value`, { xs: 'http://www.w3.org/2001/XMLSchema' })
    .map((node) => node.content);

const database = (series: string): string =>
  `<lens-database xmlns="https://etagere.example/ns/lens-database/1" release="2026-10">
  <mount name="Alder"/>
  <camera maker="Perrin" model="Perrin Alder" mount="Alder" width="36" height="24"/>
  <lens maker="Perrin" model="Perrin 50 mm f/2" mount="Alder" crop="1">
    <alias>PX 50/2</alias>
    ${series}
  </lens>
</lens-database>`;
const attributes = (more: Record<string, string> = {}): string =>
  Object.entries({ quantity: 'distortion', model: 'odd3', unit: UNIT, direction: 'ideal-to-distorted', ...more })
    .map(([name, value]) => `${name}="${value}"`)
    .join(' ');
const series = (more?: Record<string, string>, sample = '<sample focal="50" k1="-9e-3"/>'): string =>
  `<series ${attributes(more)}>${sample}</series>`;

describe('the published schema', () => {
  test('knows the quantities, models, units and directions that are computed with, and no other', () => {
    expect(enumeration('quantity').sort()).toEqual([...quantities].sort());
    expect(enumeration('direction').sort()).toEqual(Object.values(directionNames).sort());
    expect(enumeration('unit')).toEqual([UNIT]);
    const models = enumeration('model');
    expect(models.filter((name) => !quantities.some((quantity) => modelOf(quantity, name)))).toEqual([]);
    expect(models).toEqual(expect.arrayContaining([...fitted, 'even']));
  });
  test('takes a database, and each that is written here', () => {
    const text = database(series());
    expect(valid(text)).toBe(true);
    for (const to of fitted) {
      const { bytes } = convertDatabase(new TextEncoder().encode(text), to, 'to-ideal');
      expect(valid(new TextDecoder().decode(bytes)), to).toBe(true);
    }
  });
  test.each([
    ['a model that is none', database(series({ model: 'mustache' }))],
    ['another unit', database(series({ unit: 'mm' }))],
    ['a figure that is no number', database(series({}, '<sample focal="50" k1="NaN"/>'))],
    ['a focal length of 0', database(series({}, '<sample focal="0" k1="1"/>'))],
    ['a series without a sample', database(series({}, ''))],
    ['a lens without a name', database('').replace('Perrin 50 mm f/2', '')],
    ['another namespace', database('').replace('/1"', '/2"')],
  ])('refuses %s', (_, text) => {
    expect(valid(text)).not.toBe(true);
  });
});
