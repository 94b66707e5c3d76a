import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import marlstone3 from '@/standins/descriptors/marlstone-3.json';
import marlstone4 from '@/standins/descriptors/marlstone-4.json';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import perrinAlder from '@/standins/descriptors/perrin-alder-1.json';
import { addLines } from '../sync/index-lines';
import { allowedSigns } from './allowed-signs';
import { parseDescriptor, type Descriptor } from './descriptor';
import { differences } from './differences';
import { fileName } from './file-name';
import { placesOutside } from './own-folder';

const withPlace = (template: string, base: unknown = oxbow2): unknown => ({
  ...(base as Descriptor),
  places: { ...(base as Descriptor).places, looks: { linux: template } },
});
const refusal = (value: unknown): string => {
  try {
    parseDescriptor(value);
    return '';
  } catch (error) {
    return (error as Error).message;
  }
};

describe('places of a descriptor', () => {
  test.each([
    ['{config}/autostart', 'keep programs or keys'],
    ['{home}/Library/LaunchAgents', 'keep programs or keys'],
    ['{config}/Microsoft/Windows/Start Menu/Programs', 'keep programs or keys'],
    ['{home}/.ssh', 'keep programs or keys'],
    ['{home}/Oxbow/../Other', 'steps out'],
    ['{home}/Oxbow/./Looks', 'steps out'],
    ['{home}/Oxbow /Looks', 'space or a dot'],
    ['{home}/Oxbow./Looks', 'space or a dot'],
    ['{home}/Oxbow/aux.d', 'names a device'],
    ['{home}/Oxbow/COM¹', 'names a device'],
    ['{home}/Ox\u202ebow/Looks', 'not seen'],
    ['{home}/Cafe\u0301/Oxbow', 'not seen'],
    ['/etc/cron.d', 'must begin with'],
    ['{home}', 'must begin with'],
  ])('%s is refused: %s', (template, why) => {
    expect(refusal(withPlace(template))).toContain(why);
  });

  test.each(['.desktop', '.sh', '.exe', '.plist', '.lnk', '.py'])('files ending in %s are refused', (extension) => {
    const [first, ...rest] = (oxbow2 as unknown as Descriptor).accepts;
    expect(refusal({ ...oxbow2, accepts: [{ ...first, extension }, ...rest] })).toContain(
      'must not be that of a program',
    );
  });

  test('within the editor’s own folders need no word, hidden or not', () => {
    for (const own of [marlstone3, marlstone4, oxbow2, perrinAlder])
      expect(placesOutside(parseDescriptor(own))).toEqual([]);
  });
  test.each(['{home}/Pictures/Looks', '{home}/.config/oxbow/looks', '{config}/Other/Looks', '{media}/.hidden/Oxbow'])(
    'at %s are told as outside',
    (template) => {
      const outside = placesOutside(parseDescriptor(withPlace(template)));
      expect(outside.map((one) => one.template)).toEqual([template]);
    },
  );
  test('that everybody shares are nobody’s own, whatever an editor calls itself', () => {
    const sly = { ...(withPlace('{home}/Documents') as object), editor: 'documents', title: 'Documents' };
    expect(placesOutside(parseDescriptor(sly)).map((one) => one.template)).toContain('{home}/Documents');
  });
  test('of its list and its index count as well', () => {
    const reads = parseDescriptor({ ...oxbow2, listing: { linux: '{home}/Documents/accounts.json' } });
    expect(placesOutside(reads)).toEqual([{ what: 'its list, linux', template: '{home}/Documents/accounts.json' }]);
  });
});

describe('signs allowed in names', () => {
  test('are single ones and ranges', () => {
    const is = allowedSigns('A-Ca-c0-9_-');
    expect([...'ABCabc059_-'].every(is)).toBe(true);
    expect([...'Dd .é/'].some(is)).toBe(false);
  });
  test.each([
    ['a/b', 'no file name may hold'],
    ['z-a', 'backwards'],
    ['', 'are none'],
    ['a]|(x+x+)+y', 'no file name may hold'],
  ])('%s is refused: %s', (text, why) => {
    expect(() => allowedSigns(text)).toThrow(why);
  });
  test('take linear time, whatever they are and whatever they are asked', () => {
    const name = fileName('a'.repeat(50_000) + '!', '.cube', { max: 28, allowed: 'a-zA-Za-za-za-z0-9' });
    expect(name).toBe(`${'a'.repeat(23)}.cube`);
  });
  test('leave a legal name, always', () =>
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme', maxLength: 60 }), (title) => {
        const name = fileName(title, '.cube', { max: 28, allowed: 'A-Za-z0-9_-' });
        expect(name).toMatch(/^[A-Za-z0-9_-]+\.cube$/);
      }),
    ));
});

describe('file names', () => {
  test('are no devices, whatever follows a dot, and turn no text around', () => {
    expect(fileName('con.final', '.cube')).toBe('item-con.final.cube');
    expect(fileName('LPT¹', '.cube')).toBe('item-LPT¹.cube');
    expect(fileName('exe\u202eebuc.\u200b', '.cube')).toBe('exeebuc.cube');
  });
  test('with line breaks or unseen signs do not become lines of an index', () => {
    expect(() => addLines('one.cube\n', ['two.cube\nthree.cube'])).toThrow('cannot stand in an editor’s index');
    expect(() => addLines('', ['a\u202eb.cube'])).toThrow('cannot stand in an editor’s index');
  });
});

test('differences name the place, what it was and what it would be', () => {
  const before = parseDescriptor(oxbow2);
  const after = parseDescriptor({
    ...oxbow2,
    title: 'Oxbow Two',
    notes: undefined,
    cameras: ['Perrin Alder', 'Ondine 40'],
  });
  const found = new Map(differences(before, after).map((one) => [one.at, one]));
  expect(found.get('title')).toEqual({ at: 'title', before: before.title, after: 'Oxbow Two' });
  expect(found.get('cameras')?.after).toBe('Perrin Alder, Ondine 40');
  expect(differences(before, before)).toEqual([]);
  expect(differences(null, after).every((one) => one.before === null)).toBe(true);
});
