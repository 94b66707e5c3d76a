import { describe, expect, test } from 'vitest';
import marlstone4 from '@/standins/descriptors/marlstone-4.json';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import perrinAlder from '@/standins/descriptors/perrin-alder-1.json';
import tessel7 from '@/standins/descriptors/tessel-7.json';
import { parseDescriptor } from '../editor/descriptor';
import { nativePath, isHidden, reachWords } from './places';
import { sheetOf, type SheetFile } from './sheet';

const descriptors = [marlstone4, oxbow2, perrinAlder, tessel7].map((one) => parseDescriptor(one));
const file = (editor: string, path: string, more: Partial<SheetFile> = {}): SheetFile => ({
  editor,
  path,
  does: 'put',
  over: false,
  title: 'Slate',
  ...more,
});

describe('paths', () => {
  test('are in the form that their system takes', () => {
    expect(nativePath('AppData/Roaming/.marlstone-4/looks/A.mlook', 'windows')).toBe(
      '%APPDATA%\\.marlstone-4\\looks\\A.mlook',
    );
    expect(nativePath('Oxbow/Looks', 'windows')).toBe('%USERPROFILE%\\Oxbow\\Looks');
    expect(nativePath('Library/Application Support/Oxbow', 'macos')).toBe('~/Library/Application Support/Oxbow');
    expect(nativePath('.config/oxbow', 'linux')).toBe('~/.config/oxbow');
    expect(nativePath('media/ALDER/LOOKS', 'linux')).toBe('ALDER/LOOKS');
  });

  test('that a system hides are said to be, with the way to them', () => {
    expect(isHidden('Library/Application Support/Oxbow', 'macos')).toBe(true);
    expect(isHidden('Oxbow/Looks', 'macos')).toBe(false);
    expect(isHidden('AppData/Roaming/Tessel', 'windows')).toBe(true);
    expect(isHidden('.config/oxbow', 'linux')).toBe(true);
    expect(reachWords('.config/oxbow', 'linux')).toContain(
      'Ctrl-L, paste the path, and press Enter. The folder is hidden',
    );
    expect(reachWords('Oxbow/Looks', 'windows')).not.toContain('hidden');
    expect(reachWords('media/ALDER/LOOKS', 'macos')).toContain('card into a reader');
  });
});

describe('a sheet', () => {
  test('has an editor quit that reads at launch, each folder once, and says what to look at', () => {
    const home = 'Library/Application Support/.marlstone-4';
    expect(
      sheetOf(
        descriptors,
        [
          file('marlstone@4', `${home}/looks/Slate.mlook`),
          file('marlstone@4', `${home}/looks/Gypsum.mlook`, { title: 'Gypsum', over: true }),
          file('marlstone@4', `${home}/looks/Old.mlook`, { title: 'Old', does: 'remove' }),
        ],
        'macos',
      ),
    ).toEqual([
      {
        title: 'Marlstone 4',
        before: 'Quit Marlstone 4, if it runs.',
        folders: [
          {
            folder: '~/Library/Application Support/.marlstone-4/looks',
            reach: reachWords(`${home}/looks`, 'macos'),
            put: [
              { name: 'Slate.mlook', over: false },
              { name: 'Gypsum.mlook', over: true },
            ],
            remove: ['Old.mlook'],
          },
        ],
        after: ['Start Marlstone 4.'],
        checks: ['Marlstone 4 lists Slate.', 'Marlstone 4 lists Gypsum.', 'Marlstone 4 lists Old no longer.'],
        cannot: [],
        notes: '',
      },
    ]);
  });

  test('lets an editor run that rescans, and has photos opened again where a profile comes', () => {
    const [sheet] = sheetOf(descriptors, [file('oxbow@2', 'Oxbow/Profiles/Ondine 40/N.dcp')], 'linux');
    expect([sheet?.before, sheet?.after]).toEqual([
      '',
      [
        'Oxbow 2 sees it by itself within a moment; it need not be started anew.',
        'Photos that are open in Oxbow 2 are closed and opened again.',
      ],
    ]);
    const [look] = sheetOf(descriptors, [file('oxbow@2', 'Oxbow/Looks/N.cube')], 'linux');
    expect(look?.after).toHaveLength(1);
  });

  test('leaves out what stands inside a bundle, and says why; a card goes into its camera', () => {
    const [tessel] = sheetOf(
      descriptors,
      [file('tessel@7', 'AppData/Roaming/Tessel/tessel.json#panes/Slate')],
      'windows',
    );
    expect(tessel).toMatchObject({
      folders: [],
      after: [],
      checks: [],
      cannot: ['Slate: Tessel 7 keeps it inside one file of its own, which only an agent writes'],
    });
    const [card] = sheetOf(descriptors, [file('perrin-alder@1', 'media/ALDER/LOOKS/SLATE.cube')], 'linux');
    expect(card).toMatchObject({ before: '', checks: ['The camera lists Slate.'] });
    expect(card?.folders[0]?.folder).toBe('ALDER/LOOKS');
  });
});
