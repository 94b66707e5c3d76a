/** An editor as the tests of the form know it: with something of each part, those too that the form does not draw. */
import type { Descriptor } from '@/core/editor/descriptor';

const everywhere = (path: string) => ({ macos: path, windows: path, linux: path });

export const trestle: Descriptor = {
  editor: 'trestle',
  version: '2',
  title: 'Trestle 2',
  kind: 'editor',
  systems: ['macos', 'windows', 'linux'],
  sees: 'rescan',
  listing: everywhere('{config}/Trestle/shown.json'),
  places: {
    looks: everywhere('{home}/Trestle/Looks'),
    presets: everywhere('{home}/Trestle/Presets'),
    panes: everywhere('{config}/Trestle/trestle.json#panes'),
    lenses: everywhere('{home}/Trestle/Lenses'),
  },
  accepts: [
    {
      kind: 'look',
      place: 'looks',
      extension: '.cube',
      headings: 'folder',
      writer: {
        table: {
          codec: 'cube',
          size: { exact: 33 },
          encoding: { primaries: 'rec2020', transfer: { log: { below: -9, above: 4 } } },
        },
      },
    },
    {
      kind: 'look',
      place: 'panes',
      extension: '',
      headings: 'inside',
      honours: ['result'],
      writer: { entry: { json: { label: '{title}' } } },
    },
    {
      kind: 'preset',
      language: 'trestle@2',
      place: 'presets',
      extension: '.xmp',
      headings: 'folder',
      writer: { asIs: true },
    },
    {
      kind: 'camera-profile',
      formats: ['dcp'],
      meets: { camera: true },
      place: 'looks',
      extension: '.dcp',
      headings: 'camera',
      sees: 'reopen',
      writer: { asIs: true },
    },
  ],
  cameras: ['Perrin Alder', 'Ondine 40'],
  honours: [],
  notes: 'Quit it before its folders are tidied up.',
};
