/** The looks and presets of the demo scenario as common settings; everything else of them is computed. All names are made up. */
import type { Settings } from '@/core/preset/kinds';

export interface Design {
  title: string;
  headings: string[];
  settings: Settings;
  size?: number;
}
const sector = (center: number, width: number, turn: number, chroma: number, lightness = 0) => ({
  center,
  width,
  turn,
  chroma,
  lightness,
});
const design = (title: string, headings: string[], settings: Settings, size = 33): Design => ({
  title,
  headings,
  settings,
  size,
});

export const houseLooks: Design[] = [
  design('Amber Proscenium', ['House', 'Stage'], {
    warmth: 38,
    contrast: 1.14,
    toe: -18,
    chroma: 1.06,
    tintDark: { hue: 35, amount: 0.02 },
    tintLight: { hue: 85, amount: 0.022 },
    curve: [
      [0, 0.012],
      [0.25, 0.22],
      [0.7, 0.74],
      [1, 0.985],
    ],
  }),
  design('Slate Backcloth', ['House', 'Stage'], {
    warmth: -30,
    chroma: 0.78,
    contrast: 1.08,
    tintDark: { hue: 250, amount: 0.032 },
    tintMiddle: { hue: 240, amount: 0.012 },
    blackPoint: -0.015,
  }),
  design('Limelight Bleach', ['House', 'Stage'], {
    level: 0.25,
    contrast: 1.22,
    chroma: 0.46,
    shoulder: 22,
    tintLight: { hue: 115, amount: 0.012 },
  }),
  design('Gallery Neutral', ['House', 'Museum'], {
    contrast: 1.05,
    curve: [
      [0, 0],
      [0.3, 0.29],
      [0.75, 0.765],
      [1, 1],
    ],
    chroma: 1.02,
  }),
  design('Footlight Deep', ['House', 'Stage'], { contrast: 1.34, chroma: 1.42, lowChroma: 12, toe: -26 }),
  design('Plate Monochrome', ['House', 'Museum'], {
    monochrome: {
      sectors: [
        { center: 30, width: 120, lightness: 0.06 },
        { center: 250, width: 140, lightness: -0.08 },
      ],
    },
    contrast: 1.16,
    tintDark: { hue: 60, amount: 0.008 },
  }),
  design('Celadon Study', ['House', 'Ceramics'], {
    hueSectors: [sector(165, 100, 8, 1.28, 0.02), sector(35, 90, 0, 0.82)],
    contrast: 1.06,
    lowChroma: 14,
  }),
  design('Ward Linen', ['House', 'Costume'], {
    warmth: 8,
    contrast: 0.94,
    chroma: 0.9,
    toe: 22,
    tintLight: { hue: 75, amount: 0.014 },
  }),
];

export const sableLooks: Design[] = [
  design('Faded Playbill', ['Autumn', 'Paper'], {
    contrast: 0.88,
    chroma: 0.66,
    warmth: 16,
    blackPoint: -0.045,
    tintDark: { hue: 80, amount: 0.02 },
  }),
  design('Oxidised Teal', ['Autumn', 'Metal'], {
    hueSectors: [sector(40, 110, -6, 1.12), sector(210, 140, -14, 1.18)],
    tintDark: { hue: 205, amount: 0.04 },
    tintLight: { hue: 65, amount: 0.022 },
    contrast: 1.1,
  }),
  design(
    'Painted Drop',
    ['Autumn', 'Stage'],
    { warmth: -22, chroma: 0.84, tintDark: { hue: 255, amount: 0.03 }, contrast: 1.1 },
    17,
  ),
  design('Gaslight', ['Autumn', 'Stage'], {
    warmth: 52,
    level: -0.2,
    contrast: 1.2,
    tintDark: { hue: 30, amount: 0.03 },
    tintLight: { hue: 95, amount: 0.03 },
  }),
  design('Silver Cue Sheet', ['Autumn', 'Paper'], {
    monochrome: { sectors: [] },
    contrast: 1.26,
    toe: -12,
    tintMiddle: { hue: 250, amount: 0.006 },
  }),
  design(
    'Fly Loft',
    ['Autumn', 'Stage'],
    { contrast: 1.18, chroma: 0.92, tintDark: { hue: 275, amount: 0.028 }, shoulder: -14 },
    64,
  ),
  design('Understudy', ['Autumn', 'Paper'], {
    contrast: 0.96,
    chroma: 1.12,
    hueSectors: [sector(95, 80, -10, 1.05, 0.01)],
    lowChroma: 18,
  }),
  design('Grease Paint', ['Autumn', 'Stage'], {
    chroma: 1.26,
    hueSectors: [sector(25, 80, 4, 1.16, 0.015), sector(150, 90, 0, 0.8)],
    contrast: 1.12,
  }),
];

export const fathomLooks: Design[] = [
  design('Prussian Wash', ['Stage set', 'Cool'], {
    tintDark: { hue: 262, amount: 0.05 },
    chroma: 0.9,
    contrast: 1.12,
    warmth: -12,
  }),
  design('Madder Root', ['Stage set', 'Warm'], {
    hueSectors: [sector(20, 90, -5, 1.34), sector(250, 120, 0, 0.7)],
    tintMiddle: { hue: 18, amount: 0.014 },
    contrast: 1.08,
  }),
  design('Verdigris Hinge', ['Stage set', 'Cool'], {
    hueSectors: [sector(170, 140, 12, 1.3)],
    tintLight: { hue: 165, amount: 0.02 },
    toe: 12,
  }),
  design('Lamp Black', ['Stage set', 'Monochrome'], {
    monochrome: { sectors: [{ center: 120, width: 150, lightness: 0.05 }] },
    contrast: 1.5,
    blackPoint: 0.03,
  }),
  design(
    'Rabbit Glue',
    ['Stage set', 'Warm'],
    { warmth: 24, contrast: 0.9, chroma: 0.74, shoulder: 18, blackPoint: -0.03 },
    25,
  ),
  design('Kaolin', ['Stage set', 'Pale'], {
    level: 0.35,
    contrast: 0.86,
    chroma: 0.8,
    toe: 30,
    tintLight: { hue: 70, amount: 0.008 },
  }),
  design('Cobalt Bisque', ['Stage set', 'Cool'], {
    hueSectors: [sector(260, 90, -6, 1.4, -0.02)],
    lowChroma: 10,
    contrast: 1.04,
  }),
];

export const kilnLooks: Design[] = [
  design('Bisque Morning', ['Ceramics', 'Studies'], { warmth: 12, contrast: 0.92, lowChroma: 22, toe: 16 }),
  design('Reduction Fire', ['Ceramics', 'Studies'], {
    hueSectors: [sector(25, 100, -6, 1.3, -0.01), sector(160, 90, 6, 0.86)],
    contrast: 1.16,
    tintDark: { hue: 28, amount: 0.018 },
  }),
  design('Ash Glaze', ['Ceramics', 'Studies'], {
    chroma: 0.72,
    hueSectors: [sector(110, 90, 8, 1.2)],
    tintMiddle: { hue: 120, amount: 0.008 },
    shoulder: -18,
  }),
  design('Slip Trail', ['Ceramics', 'Studies'], {
    contrast: 1.28,
    chroma: 0.94,
    warmth: -8,
    curve: [
      [0, 0],
      [0.2, 0.14],
      [0.6, 0.64],
      [1, 1],
    ],
  }),
  // somebody's own try at Celadon Study, which does the same to every eye
  design('Celadon, second try', ['Ceramics', 'Studies'], {
    hueSectors: [sector(165, 100, 8, 1.285, 0.02), sector(35, 90, 0, 0.82)],
    contrast: 1.063,
    lowChroma: 14,
  }),
  design('Raking Light', ['Ceramics', 'Record'], { contrast: 1.42, chroma: 0.6, level: 0.1, toe: -14 }),
];

const plaster = { contrast: 0.93, chroma: 0.7, warmth: 6, toe: 18 };

/** A supplier's looks for plaster rooms, with what a later release makes of one. */
export const quarryLooks = {
  dust: design('Plaster Dust', ['Plaster', 'Pale'], plaster),
  dustRendered: design('Plaster Dust (JPEG)', ['Plaster', 'Pale'], { ...plaster, contrast: 0.98, toe: 8 }),
  gypsum: design('Gypsum', ['Plaster', 'Pale'], { level: 0.2, contrast: 0.88, chroma: 0.55 }),
  wetCast: design('Wet Cast', ['Plaster', 'Deep'], {
    contrast: 1.18,
    warmth: -10,
    tintDark: { hue: 70, amount: 0.02 },
  }),
  strongerCast: design('Wet Cast', ['Plaster', 'Deep'], {
    contrast: 1.26,
    warmth: -14,
    tintDark: { hue: 70, amount: 0.026 },
  }),
  scrim: design('Scrim', ['Plaster', 'Cloth'], { contrast: 0.9, chroma: 0.84, tintLight: { hue: 80, amount: 0.02 } }),
  armature: design('Armature', ['Plaster', 'Deep'], { contrast: 1.32, chroma: 0.6, blackPoint: 0.02 }),
} satisfies Record<string, Design>;

/** Oxbow's presets, in its own words: steps with attributes. */
export interface OxbowPreset {
  title: string;
  headings: string[];
  steps: [string, Record<string, string | number>][];
}
export const oxbowPresets: OxbowPreset[] = [
  {
    title: 'Rehearsal Room',
    headings: ['Autumn', 'Presets'],
    steps: [
      ['lamp', { stops: 0.3 }],
      ['spread', { by: 0.22, about: 18 }],
      ['bend', { foot: 0.12, head: -0.1 }],
      ['dye', { rich: -8, shy: 14 }],
      ['cast', { mired: 14, leaf: 4 }],
      ['edge', { bite: 0.4, relief: 0.18 }],
      ['hush', { light: 0.1, dye: 0.25 }],
    ],
  },
  {
    title: 'Velvet House',
    headings: ['Autumn', 'Presets'],
    steps: [
      ['line', { on: 'all', through: '0,6 60,50 190,202 255,250' }],
      ['petal', { at: 20, span: 90, turn: -4, rich: 22 }],
      ['petal', { at: 250, span: 120, rich: -30, lift: -1 }],
      ['wash', { over: 'deep', hue: 340, load: 24 }],
      ['tooth', { load: 0.2 }],
      ['corners', { stops: -0.6 }],
    ],
  },
  {
    title: 'Wardrobe Check',
    headings: ['Autumn', 'Presets'],
    steps: [
      ['balance', { kelvin: 4100, leaf: -6 }],
      ['lamp', { stops: 0.15 }],
      ['spread', { by: -0.06 }],
      ['dye', { rich: 4 }],
      ['rescue', { pale: -0.4, deep: 0.3 }],
    ],
  },
  {
    title: 'Maquette Night',
    headings: ['Autumn', 'Presets'],
    steps: [
      ['lamp', { stops: -0.55 }],
      ['cast', { mired: -34, leaf: 3 }],
      ['spread', { by: 0.3 }],
      ['line', { on: 'blue', through: '0,14 128,132 255,250' }],
      ['wash', { over: 'deep', hue: 262, load: 40 }],
      ['table', { name: 'Slate Backcloth', share: 0.4 }],
    ],
  },
  {
    title: 'Engraver',
    headings: ['Autumn', 'Presets'],
    steps: [
      ['plate', {}],
      ['plate-band', { at: 25, span: 110, lift: 8 }],
      ['plate-band', { at: 255, span: 130, lift: -10 }],
      ['spread', { by: 0.35 }],
      ['ends', { low: 6, high: 250 }],
      ['tooth', { load: 0.35 }],
    ],
  },
];

/** Marlstone 3's presets: sections with keys. */
export interface MarlstonePreset {
  title: string;
  drawer: string;
  sections: [string, Record<string, string | number>][];
}
export const marlstonePresets: MarlstonePreset[] = [
  {
    title: 'Kiln Opening',
    drawer: 'Ceramics/Presets',
    sections: [
      ['light', { amount: 118, snap: 12, deepen: 14, glow: 8 }],
      ['pigment', { depth: 108, pale: 10, heat: 9, rose: 2 }],
      ['ochre', { depth: 116, lift: 6 }],
      ['smalt', { depth: 124, turn: -10 }],
      ['surface', { crisp: 45, calm: 10, clear: 12 }],
    ],
  },
  {
    title: 'Glaze Test',
    drawer: 'Ceramics/Presets',
    sections: [
      ['trace', { whole: '0:0;0.25:0.21;0.72:0.78;1:1' }],
      ['verdigris', { turn: 14, depth: 122 }],
      ['glaze', { on: 'light', hue: 80, coat: 12 }],
      ['surround', { shade: 20 }],
    ],
  },
  {
    title: 'Bare Biscuit',
    drawer: 'Ceramics/Presets',
    sections: [
      ['light', { amount: 132, snap: -16, floor: -2 }],
      ['pigment', { depth: 78, heat: 14 }],
      ['madder', { depth: 88, lift: 10 }],
    ],
  },
  {
    title: 'Copperplate',
    drawer: 'Ceramics/Presets',
    sections: [
      ['engraving', { madder: 30, smalt: -40 }],
      ['light', { snap: 24, deepen: 20 }],
      ['surface', { weave: 15 }],
    ],
  },
];
