/** For tests of the core: settings and presets that are made up. */
import { fromFunction, writeCube } from '../look';
import type { Settings } from './kinds';
import { compile } from './render';

/** Warm lights and dark tints, with a curve of its own. */
export const warm: Settings = {
  warmth: 36,
  contrast: 1.16,
  toe: -15,
  chroma: 1.05,
  tintDark: { hue: 32, amount: 0.02 },
  tintLight: { hue: 88, amount: 0.02 },
  curve: [
    [0, 0.01],
    [0.3, 0.27],
    [0.7, 0.735],
    [1, 0.985],
  ],
};
/** Pale, with little color left. */
export const pale: Settings = {
  chroma: 0.4,
  contrast: 1.24,
  toe: -22,
  shoulder: -8,
  tintDark: { hue: 250, amount: 0.01 },
};
/** Soft, with raised blacks. */
export const faded: Settings = {
  contrast: 0.9,
  warmth: 14,
  curve: [
    [0, 0.05],
    [0.5, 0.51],
    [1, 0.95],
  ],
};

const clip = (value: number): number => Math.min(1, Math.max(0, value));

/** A .cube of some settings; what they push out of 0…1 is clipped. */
export function cubeOf(settings: Settings, size: number, title = 'Kiln'): string {
  const evaluate = compile(settings);
  return writeCube(
    fromFunction(size, title, (values) => {
      evaluate(values[0]!, values[1]!, values[2]!, values, 0);
      for (let c = 0; c < 3; c++) values[c] = clip(values[c]!);
    }),
  );
}

interface Said {
  title?: string;
  headings?: readonly string[];
}

/** An XMP packet of Oxbow's with these steps, such as `<rdf:li run:step="lamp" run:stops="0.5"/>`. */
export const oxbowPreset = (steps: string, { title = 'T', headings = [] }: Said = {}): string =>
  `<?xpacket begin="\ufeff" id="W5M0MpCehiHzreSzNTczkc9d"?>
<rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#">
 <rdf:Description rdf:about="" xmlns:dc="http://purl.org/dc/elements/1.1/" xmlns:run="https://oxbow.example/ns/run/2/" run:edition="2">
  <dc:title><rdf:Alt><rdf:li xml:lang="x-default">${title}</rdf:li></rdf:Alt></dc:title>
  <dc:subject><rdf:Bag>${headings.map((one) => `<rdf:li>${one}</rdf:li>`).join('')}</rdf:Bag></dc:subject>
  <run:steps>
    <rdf:Seq>
${steps}
    </rdf:Seq>
  </run:steps>
 </rdf:Description>
</rdf:RDF>
<?xpacket end="w"?>
`;

/** An INI text of Marlstone's with these sections, such as `[light]\\namount=120`. */
export const marlstonePreset = (sections: string, { title = 'T', headings = [] }: Said = {}): string =>
  `; Marlstone preset
[marlstone]
edition=3
name=${title}
drawer=${headings.join('/')}

${sections}
`;

const between = (random: () => number, low: number, high: number, decimals: number): number =>
  Number((low + random() * (high - low)).toFixed(decimals));

/** A curve that rises through some points. */
function risingCurve(random: () => number): [number, number][] {
  const inner = Array.from({ length: 1 + Math.floor(random() * 3) }, () => between(random, 0.1, 0.9, 3)).sort();
  const xs = [0, ...new Set(inner), 1];
  const ys = xs.map((x) => Math.min(1, Math.max(0, x + between(random, -0.08, 0.08, 3)))).sort((a, b) => a - b);
  return xs.map((x, index) => [x, ys[index]!]);
}

/** Settings as some preset may have them: each of them there in about half of all. */
export function settingsAtRandom(random: () => number): Settings {
  function some<T>(make: () => T): T | undefined {
    return random() < 0.5 ? make() : undefined;
  }
  const number = (low: number, high: number, decimals: number) => some(() => between(random, low, high, decimals));
  const tint = () => some(() => ({ hue: between(random, 0, 359, 0), amount: between(random, 0.003, 0.09, 3) }));
  const sector = (center: number, width: number) => ({
    center,
    width,
    turn: between(random, -12, 12, 1),
    chroma: between(random, 0.5, 1.6, 2),
    lightness: between(random, -0.05, 0.05, 3),
  });
  const settings: Settings = {
    level: number(-2, 2, 2),
    contrast: number(0.7, 1.6, 3),
    blackPoint: number(-0.05, 0.05, 3),
    whitePoint: number(0.9, 1.1, 3),
    toe: number(-40, 40, 0),
    shoulder: number(-40, 40, 0),
    curve: some(() => risingCurve(random)),
    curveRed: some(() => risingCurve(random)),
    curveBlue: some(() => risingCurve(random)),
    hueSectors: some(() => [sector(20, 80), sector(75, 80), sector(255, 90)].slice(Math.floor(random() * 3))),
    lowChroma: number(-60, 60, 0),
    chroma: number(0.5, 1.6, 2),
    warmth: number(-60, 60, 0),
    tintShift: number(-40, 40, 0),
    tintDark: tint(),
    tintMiddle: tint(),
    tintLight: tint(),
    slope: some(() => [0, 1, 2].map(() => between(random, 0.8, 1.2, 2))),
    offset: some(() => [0, 1, 2].map(() => between(random, -0.05, 0.05, 3))),
    power: some(() => [0, 1, 2].map(() => between(random, 0.8, 1.2, 2))),
    sharpening: number(0, 80, 0),
    grain: number(0, 60, 0),
    vignette: number(-2, 2, 2),
    look: some(() => ({ name: 'Slate Backcloth', strength: between(random, 10, 100, 0) })),
  };
  return Object.fromEntries(Object.entries(settings).filter(([, value]) => value !== undefined));
}
