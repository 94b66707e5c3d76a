/**
 * Quern 3: an editor that opens pictures alone, keeps its presets to itself and tells nobody how it computes. It renders a
 * picture from the command line, with a preset on, and with adjustments that look at neighbours or at the place, if one
 * forgets to switch them off. Shares nothing with Etagere.
 */
import { parseArgs } from 'node:util';
import sharp from 'sharp';

type Color = [number, number, number];

interface Preset {
  /** of the curve that all goes through */ toe: number;
  shoulder: number;
  /** how much the hues swing, and where */ swing: number;
  phase: number;
  /** of colors, by how bright they are */ fade: number;
  tint: Color;
}

const presets: Record<string, Preset> = {
  velour: { toe: 0.62, shoulder: 1.7, swing: 0.24, phase: 0.7, fade: 0.28, tint: [1.02, 0.985, 0.93] },
  tin: { toe: 0.85, shoulder: 2.3, swing: 0.1, phase: 2.4, fade: 0.62, tint: [0.96, 1.0, 1.05] },
  none: { toe: 1, shoulder: 1, swing: 0, phase: 0, fade: 0, tint: [1, 1, 1] },
};

/** A curve through 0 and 1 that is steep where it likes to be. */
const curve = (value: number, { toe, shoulder }: Preset): number => {
  const low = Math.pow(Math.min(1, Math.max(0, value)), 1 / toe);
  return 1 - Math.pow(1 - low, shoulder);
};

/** Nobody's mathematics: hues swing round by where they are, colors fade by how bright they are, then the curve. */
function develop(color: Color, preset: Preset): void {
  const luma = (color[0] + 2 * color[1] + color[2]) / 4;
  const along = color[0] - color[2];
  const across = color[1] - (color[0] + color[2]) / 2;
  const angle = preset.swing * Math.sin(Math.atan2(across, along) + preset.phase);
  const keep = 1 - preset.fade * luma * luma;
  const x = keep * (along * Math.cos(angle) - across * Math.sin(angle));
  const y = keep * (along * Math.sin(angle) + across * Math.cos(angle));
  const green = luma + y / 2;
  const sum = 2 * luma - y;
  const turned: Color = [(sum + x) / 2, green, (sum - x) / 2];
  turned.forEach((value, channel) => {
    color[channel] = curve(value, preset) * preset.tint[channel]!;
  });
}

interface Picture {
  width: number;
  height: number;
  values: Float32Array;
}

/** The mean over a square of so many pixels to each side, by sums along rows and columns. */
function blurred({ width, height, values }: Picture, reach: number): Float32Array {
  const pass = (from: Float32Array, count: number, length: number, step: number, line: number): Float32Array => {
    const out = new Float32Array(from.length);
    for (let at = 0; at < count; at++)
      for (let c = 0; c < 3; c++) {
        const start = at * line + c;
        const value = (place: number) => from[start + Math.min(length - 1, Math.max(0, place)) * step]!;
        let sum = 0;
        for (let k = -reach; k <= reach; k++) sum += value(k);
        for (let place = 0; place < length; place++) {
          out[start + place * step] = sum / (2 * reach + 1);
          sum += value(place + reach + 1) - value(place - reach);
        }
      }
    return out;
  };
  const rows = pass(values, height, width, 3, width * 3);
  return pass(rows, width, height, width * 3, 3);
}

/** What one forgets to switch off. */
const local: Record<string, (picture: Picture) => void> = {
  crisp: (picture) => {
    const soft = blurred(picture, 1);
    picture.values.forEach((value, i) => {
      picture.values[i] = value + 0.5 * (value - soft[i]!);
    });
  },
  presence: (picture) => {
    const soft = blurred(picture, 40);
    picture.values.forEach((value, i) => {
      picture.values[i] = value + 0.25 * (value - soft[i]!);
    });
  },
  corners: ({ width, height, values }) => {
    for (let i = 0; i < values.length; i++) {
      const x = (Math.floor(i / 3) % width) / width - 0.5;
      const y = Math.floor(i / 3 / width) / height - 0.5;
      values[i] = values[i]! * (1 - 0.5 * (x * x + y * y));
    }
  },
};

const { values: given, positionals } = parseArgs({
  allowPositionals: true,
  options: {
    preset: { type: 'string', default: 'none' },
    on: { type: 'string', multiple: true, default: [] },
    pack: { type: 'string', default: 'deflate' },
  },
});
const [source, target] = positionals;
const preset = presets[given.preset];
const packs = ['deflate', 'jpeg'] as const;
const pack = packs.find((one) => one === given.pack);
const left = given.on.map((name) => local[name]);
if (!source || !target || !preset || !pack || left.includes(undefined)) {
  process.stderr.write(
    `use: quern PICTURE EXPORT.{tif,png,jpg} [--preset ${Object.keys(presets).join('|')}] [--on ${Object.keys(local).join('|')}]… [--pack ${packs.join('|')}]\n`,
  );
  process.exit(2);
}

const { data, info } = await sharp(source, { ignoreIcc: true, limitInputPixels: 400e6 })
  .toColourspace('rgb16')
  .removeAlpha()
  .raw({ depth: 'ushort' })
  .toBuffer({ resolveWithObject: true });
const samples = new Uint16Array(data.buffer, data.byteOffset, data.length / 2);
const picture: Picture = {
  width: info.width,
  height: info.height,
  values: new Float32Array(samples.length),
};
const color: Color = [0, 0, 0];
const same = (i: number): boolean =>
  i >= 3 && samples[i] === samples[i - 3] && samples[i + 1] === samples[i - 2] && samples[i + 2] === samples[i - 1];
for (let i = 0; i < samples.length; i += 3) {
  // what is as its neighbour to the left comes out as that did
  if (!same(i)) {
    for (let c = 0; c < 3; c++) color[c] = samples[i + c]! / 65535;
    develop(color, preset);
  }
  for (let c = 0; c < 3; c++) picture.values[i + c] = color[c]!;
}
for (const adjust of left) adjust?.(picture);
const out = new Uint16Array(picture.values.length);
for (let i = 0; i < out.length; i++) out[i] = Math.round(65535 * Math.min(1, Math.max(0, picture.values[i]!)));
const raw = { width: info.width, height: info.height, channels: 3 as const };
const exported = sharp(out, { raw });
if (/\.jpe?g$/i.test(target)) await exported.toColourspace('srgb').jpeg({ quality: 90 }).toFile(target);
else if (/\.png$/i.test(target)) await exported.toColourspace('rgb16').png().toFile(target);
else await exported.toColourspace('rgb16').tiff({ compression: pack }).toFile(target);
console.log(
  `${target}: ${info.width} × ${info.height}, ${given.preset}${given.on.map((name) => `, ${name}`).join('')}`,
);
