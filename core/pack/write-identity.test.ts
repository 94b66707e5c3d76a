/** Who made a file and whose it is: written where the format has a place, and read again as it was written. */
import { strToU8 } from 'fflate';
import { describe, expect, test } from 'vitest';
import { profileOf, readDcp, writeDcp } from '@/core/camera/dcp';
import { wholeIcc } from '@/core/testing';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import tessel7 from '@/standins/descriptors/tessel-7.json';
import { parseDescriptor } from '../editor/descriptor';
import { mluc } from '../icc/write';
import { identityIn, type Identity } from '../item/identity';
import { made } from '../camera/testing';
import { oxbowPreset } from '../preset/testing';
import { recognise } from '../recognise';
import { writeTitle } from './write-title';

const known = [parseDescriptor(oxbow2)];
const said: Identity = {
  description: 'Evening, without mud & noise',
  creator: 'Odile Wren',
  rights: '© 2026 Wren & Tallow <all of it>',
  webStatement: 'https://wrenandtallow.example/rights?of=looks&year=2026',
  contact: 'looks@wrenandtallow.example',
};
const identityOf = (name: string, bytes: Uint8Array) => recognise(name, bytes, known).facts.identity;
const plain = oxbowPreset('<rdf:li run:step="lamp" run:stops="0.4"/>', { title: 'Evening', headings: ['Kiln'] });
/** One that declares the schemas in which the address of the rights and the contact stand. */
const packet = strToU8(
  plain.replace(
    '<rdf:RDF ',
    '<rdf:RDF xmlns:own="https://schemas.example/xap/1.0/rights/" xmlns:con="https://schemas.example/std/Iptc4xmpCore/1.0/xmlns/" ',
  ),
);

describe('a packet', () => {
  test('bears all of it, beside a title and steps that stay', () => {
    const written = writeTitle('oxbow@2', packet, 'Evening', ['Kiln'], known, said);
    expect(identityOf('x.xmp', written)).toEqual(said);
    expect(recognise('x.xmp', written, known).facts.settings).toEqual(recognise('x.xmp', packet, known).facts.settings);
  });
  test('bears what is said last, once', () => {
    const once = writeTitle('oxbow@2', packet, 'Evening', ['Kiln'], known, said);
    const twice = writeTitle('oxbow@2', once, 'Evening', ['Kiln'], known, { ...said, creator: 'Mirre Sand' });
    expect(identityOf('x.xmp', twice)).toEqual({ ...said, creator: 'Mirre Sand' });
    expect(new TextDecoder().decode(twice).match(/<dc:creator/g)).toHaveLength(1);
    expect(new TextDecoder().decode(twice).match(/<own:WebStatement/g)).toHaveLength(1);
  });
  test('tells a contact by what it is, and reads one in whatever form it stands', () => {
    const contacts = ['looks@wren.example', 'https://wren.example/looks', '+31 20 123 45 67', 'Quay 9, Delft'];
    const properties = ['CiEmailWork', 'CiUrlWork', 'CiTelWork', 'CiAdrExtadr'];
    contacts.forEach((contact, index) => {
      const written = writeTitle('oxbow@2', packet, 'Evening', [], known, { contact });
      expect(identityOf('x.xmp', written)).toEqual({ contact });
      expect(new TextDecoder().decode(written)).toContain(`<con:${properties[index]}>`);
    });
    const several = new TextDecoder()
      .decode(packet)
      .replace(
        '<run:steps>',
        '<con:CreatorContactInfo rdf:parseType="Resource"><con:CiTelWork>020</con:CiTelWork><con:CiEmailWork>a@b.example</con:CiEmailWork></con:CreatorContactInfo><run:steps>',
      );
    const read = recognise('x.xmp', strToU8(several), known);
    expect(read.facts.identity).toEqual({ contact: '020, a@b.example' });
    expect(read.facts.unknown).toEqual({});
  });
  test('that does not declare the schemas of rights and contacts bears all but these', () => {
    const { webStatement: _address, contact: _contact, ...rest } = said;
    expect(identityOf('x.xmp', writeTitle('oxbow@2', strToU8(plain), 'Evening', [], known, said))).toEqual(rest);
  });
  test('of which nothing is said, stays as it was', () => {
    const once = writeTitle('oxbow@2', packet, 'Evening', ['Kiln'], known, said);
    expect(writeTitle('oxbow@2', once, 'Evening', ['Kiln'], known)).toEqual(once);
  });
});

describe('JSON', () => {
  const tessel = parseDescriptor(tessel7);
  const written = (format: string, content: object) =>
    recognise('x.json', writeTitle(format, strToU8(JSON.stringify(content)), 'Evening', ['Kiln'], [tessel], said), [
      tessel,
    ]);
  test('of common settings bears all of it, beside settings and words of its own that stay', () => {
    const content = { name: 'Old', settings: { level: 0.4 }, own: { kept: true } };
    const made = written('etagere@1', content);
    expect([made.title, made.headings]).toEqual(['Evening', ['Kiln']]);
    expect(made.facts.identity).toEqual(said);
    expect(made.facts.settings).toEqual({ level: 0.4 });
    const bytes = writeTitle('etagere@1', strToU8(JSON.stringify(content)), 'Evening', [], [], said);
    expect(JSON.parse(new TextDecoder().decode(bytes))).toMatchObject({ own: { kept: true } });
  });
  test('of an editor bears what its language has a place for', () => {
    const made = written('tessel@7', { tessel: 7, name: 'Old', daylight: { bright: 40 }, odd: { kept: 1 } });
    expect([made.title, made.headings]).toEqual(['Evening', ['Kiln']]);
    const { contact: _contact, ...rest } = said;
    expect(made.facts.identity).toEqual(rest);
    expect(made.facts.settings).toEqual({ level: 0.4 });
    expect(made.facts.unknown).toEqual({ 'odd.kept': '1' });
  });
});

test('a camera profile bears the rights, and renders as before', () => {
  const dcp = writeDcp(made());
  const written = writeTitle('dcp', dcp, 'Standard', [], known, said);
  expect(identityOf('x.dcp', written)).toEqual({ rights: said.rights });
  expect(profileOf(readDcp(written))).toEqual(profileOf(readDcp(dcp)));
});

test.each([
  [2, said.rights.replace('©', '(c)')],
  [4, said.rights],
])('an ICC profile of version %i bears the rights beside its description', (version, expected) => {
  const icc = wholeIcc('link', 'Old', { cprt: mluc('Nobody') });
  icc[8] = version;
  const written = writeTitle('icc', icc, 'Link', [], known, said);
  const { facts, title } = recognise('x.icc', written, known);
  expect(title).toBe('Link');
  expect(facts.identity).toEqual({ rights: expected });
  expect(recognise('x.icc', writeTitle('icc', icc, 'Link', [], known), known).facts.identity).toEqual({
    rights: 'Nobody',
  });
});

test('what is no text, or empty, or too long, is not an identity', () => {
  expect(identityIn({ creator: 7, rights: '  ', description: 'x'.repeat(9000) })).toEqual({
    description: 'x'.repeat(4000),
  });
});
