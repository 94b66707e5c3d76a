/** The two packs of the demo as a supplier would send them: folders in folders, papers, leftovers of a Mac, a copy, a broken file. */
import { fathomLooks, houseLooks, marlstonePresets, oxbowPresets, quarryLooks, sableLooks } from './designs';
import { cube1d, cubeOf, marlstoneOf, oxbowOf, zipOf } from './files';

export function sablePack(): Uint8Array {
  const files: Record<string, string | Uint8Array> = {
    'Sable Row Autumn/Read me first.txt':
      'Sable Row Looks, autumn pack.\nEight looks and five Oxbow presets. Licence: eight seats, may be converted.\n',
    'Sable Row Autumn/Licence.txt': 'Licensed to Wren & Tallow for eight seats. Conversion for own use is allowed.\n',
    '__MACOSX/Sable Row Autumn/._Read me first.txt': new Uint8Array([0, 5, 22, 7, 0, 2]),
    'Sable Row Autumn/.DS_Store': new Uint8Array([0, 0, 0, 1, 66, 117, 100, 49]),
  };
  for (const l of sableLooks) files[`Sable Row Autumn/Looks/${l.headings[1]}/${l.title}.cube`] = cubeOf(l);
  files['Sable Row Autumn/Looks/Curves/Soft Bend.cube'] = cube1d('Soft Bend', 0.9);
  for (const p of oxbowPresets) files[`Sable Row Autumn/Oxbow/${p.title}.xmp`] = oxbowOf(p);
  return zipOf(files);
}

export function fathomPack(): Uint8Array {
  const files: Record<string, string | Uint8Array> = {
    'Fathom Color - Stage set/Notes.md': '# Stage set\n\nSeven looks for painted scenery, four presets for ceramics.\n',
  };
  for (const l of fathomLooks) files[`Fathom Color - Stage set/Tables/${l.title}.cube`] = cubeOf(l);
  for (const p of marlstonePresets) files[`Fathom Color - Stage set/Marlstone 3/${p.title}.mpreset`] = marlstoneOf(p);
  const broken = cubeOf({ title: 'Size White', headings: [], settings: { level: 0.2 } }, 9).split('\n');
  files['Fathom Color - Stage set/Tables/Size White.cube'] = broken.slice(0, -4).join('\n');
  files['Fathom Color - Stage set/Tables/Gallery Neutral.cube'] = cubeOf(houseLooks[3]!);
  files['Fathom Color - Stage set/Tables/Kaolin copy.cube'] = cubeOf(fathomLooks[5]!);
  files['Fathom Color - Stage set/colors.bin'] = new Uint8Array([7, 0, 0, 1, 9, 9, 0, 3]);
  return zipOf(files);
}

export type QuarryRelease = '1.0' | '1.1' | '1.2';

/**
 * Three releases of one pack. The first has each look for camera data, and one for rendered files too; the second changes one
 * and adds one, and one is gone; the third has something of everything that can arrive.
 */
export function quarryPack(release: QuarryRelease): Uint8Array {
  const { dust, dustRendered, gypsum, wetCast, strongerCast, scrim, armature } = quarryLooks;
  const looks = {
    '1.0': [dust, dustRendered, gypsum, wetCast],
    '1.1': [dust, dustRendered, strongerCast, scrim],
    '1.2': [dust, strongerCast, scrim, armature],
  }[release];
  const files: Record<string, string | Uint8Array> = {
    'Plaster/Licence.txt': 'Licensed to Wren & Tallow for one site. May be converted for own use.\n',
    'Plaster/Changes.txt': `Quarry House, Plaster ${release}.\n`,
  };
  for (const look of looks) files[`Plaster/Looks/${look.title}.cube`] = cubeOf(look);
  if (release === '1.2') {
    files['Plaster/Looks/Wet Cast.cube'] = cubeOf({
      ...strongerCast,
      settings: { ...strongerCast.settings, toe: -22 },
    });
    files['Plaster/Looks/Scrim (JPEG).cube'] = cubeOf({ ...scrim, settings: { ...scrim.settings, contrast: 1.02 } });
    files['Plaster/Oxbow/Plaster Room.xmp'] = oxbowOf({
      ...oxbowPresets[2]!,
      title: 'Plaster Room',
      headings: ['Plaster'],
    });
    files['Plaster/Looks/Torn.cube'] = cubeOf(gypsum, 9).split('\n').slice(0, -4).join('\n');
    files['__MACOSX/Plaster/._Changes.txt'] = new Uint8Array([0, 5, 22, 7, 0, 2]);
    files['Plaster/plaster.bin'] = new Uint8Array([7, 0, 0, 1, 9, 9, 0, 3]);
  }
  return zipOf(files);
}
