import { expect, test } from 'vitest';
import marlstone3 from '@/standins/descriptors/marlstone-3.json';
import marlstone4 from '@/standins/descriptors/marlstone-4.json';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import perrinAlder1 from '@/standins/descriptors/perrin-alder-1.json';
import { parseDescriptor } from './descriptor';
import { taking, thingsToPlace } from './takings';

const all = [marlstone3, marlstone4, oxbow2, perrinAlder1].map((d) => parseDescriptor(d));
const things = thingsToPlace(all);
const how = (thing: string) =>
  all.map(
    (descriptor) =>
      taking(
        descriptor,
        things.find((t) => t.name === thing)!,
      ).how,
  );

test('presets stand by the language that an editor tells, the other kinds once', () => {
  expect(things.map((t) => t.name)).toEqual([
    'look',
    'preset of Marlstone 3',
    'preset of Marlstone 4',
    'preset of Oxbow 2',
    'camera profile (DCP)',
    'camera profile (ICC)',
    'ICC profile',
    'lens database',
    'add-on',
    'support file',
  ]);
});
test('a look goes everywhere, a preset to its own editor and as a look to the others, a lens database to the one that reads them', () => {
  expect(how('look')).toEqual(['accepted', 'accepted', 'accepted', 'accepted']);
  expect(how('preset of Marlstone 3')).toEqual([
    'accepted',
    'after conversion',
    'after conversion',
    'after conversion',
  ]);
  expect(how('preset of Oxbow 2')).toEqual(['after conversion', 'after conversion', 'accepted', 'after conversion']);
  expect(how('ICC profile')).toEqual(['after conversion', 'after conversion', 'after conversion', 'after conversion']);
  expect(how('lens database')).toEqual(['impossible', 'impossible', 'accepted', 'impossible']);
  expect(how('add-on')).toEqual(['impossible', 'impossible', 'impossible', 'impossible']);
  expect(how('support file')).toEqual(['impossible', 'impossible', 'accepted', 'impossible']);
});
test('a camera profile goes where its form is read, and after a conversion where ICC profiles are', () => {
  expect(how('camera profile (DCP)')).toEqual(['impossible', 'after conversion', 'accepted', 'impossible']);
  expect(how('camera profile (ICC)')).toEqual(['impossible', 'accepted', 'impossible', 'impossible']);
});
test('an add-on goes where add-ons are taken, in whichever form', () => {
  const accepts = [{ ...all[2]!.accepts[0]!, kind: 'add-on' as const, formats: ['zip'], writer: { asIs: true } }];
  expect(
    taking(
      { ...all[2]!, accepts },
      things.find((t) => t.name === 'add-on')!,
    ).how,
  ).toBe('accepted');
});
test('an editor that takes ICC profiles takes looks after a conversion', () => {
  const descriptor = {
    ...all[2]!,
    accepts: [{ ...all[2]!.accepts[0]!, kind: 'icc-profile' as const, formats: ['icc'], writer: { asIs: true } }],
  };
  expect(
    [
      taking(descriptor, { kind: 'look', language: '', name: '' }),
      taking(descriptor, { kind: 'icc-profile', language: 'icc', name: '' }),
    ].map((t) => t.how),
  ).toEqual(['after conversion', 'accepted']);
});
test('what is said names the file, or what it becomes', () => {
  expect(taking(all[1]!, things[0]!).words).toBe('written, .mlook');
  expect(
    taking(
      all[1]!,
      things.find((t) => t.name === 'preset of Marlstone 4')!,
    ).words,
  ).toBe('as it is, .msteps');
  expect(
    taking(
      all[1]!,
      things.find((t) => t.name === 'preset of Oxbow 2')!,
    ).words,
  ).toBe('into a look, of what a table can carry');
});
