/** The two packs of the demo as a supplier would send them: folders in folders, papers, leftovers of a Mac, a copy, a broken file. */
import { fathomLooks, houseLooks, marlstonePresets, oxbowPresets, sableLooks } from './designs';
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
