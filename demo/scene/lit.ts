/**
 * A scene's layers, row by row in the size of its surfaces. Light was rendered smaller, and is brought up along surfaces:
 * a place takes the light of its neighbors that are of the same material, so that no light bleeds over an edge.
 */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { decode } from 'fast-png';

export type SceneName = 'vessels' | 'stage' | 'night' | 'costume' | 'window' | 'garden';

interface Layer {
  width: number;
  height: number;
  data: ArrayLike<number>;
}

/** One row of a scene; arrays are overwritten by the next row. */
export interface LitRow {
  materialA: Uint8Array;
  materialB: Uint8Array;
  /** share of the first material, 0…1 */ cover: Float32Array;
  /** where each material stands between its two colors, 0…1 */ patternA: Float32Array;
  patternB: Float32Array;
  /** of each light and last of the dome, as each material receives it */ irradianceA: Float32Array[];
  irradianceB: Float32Array[];
  specular: Float32Array[];
}

export interface LitScene {
  width: number;
  height: number;
  /** lights, and the dome */ kinds: number;
  row: (y: number) => LitRow;
}

/** The night is the stage under other lights. */
const surfacesOf: Readonly<Record<SceneName, SceneName>> = {
  vessels: 'vessels',
  stage: 'stage',
  night: 'stage',
  costume: 'costume',
  window: 'window',
  garden: 'garden',
};
const kindsOf = (scene: SceneName): string[] =>
  scene === 'night' ? ['light0', 'light1', 'light2', 'dome'] : ['light0', 'light1', 'dome'];

/** A neighbor of another material counts so little that it counts only where there is no other. */
const FOREIGN = 0.001;

/** Light is stored as 12-bit square roots of up to 4.0. */
const lights = Float32Array.from({ length: 4096 }, (_, i) => 4 * (i / 4095) ** 2);
function lightOf(data: ArrayLike<number>): Float32Array {
  const out = new Float32Array(data.length);
  for (let i = 0; i < out.length; i++) out[i] = lights[data[i]!]!;
  return out;
}

const lines = (count: number, width: number): Float32Array[] =>
  Array.from({ length: count }, () => new Float32Array(width));

/** The four places of a smaller picture around one of a larger, and how much each counts there. */
interface Neighbors {
  at: Int32Array;
  weights: Float64Array;
}

/** Brings a smaller picture up to a size: four neighbors at a place, those of its material before others. */
function upscaler(guide: Layer, width: number, height: number) {
  const at = new Int32Array(4);
  const near = new Float64Array(4);
  const weights = new Float64Array(4);

  function place(x: number, y: number): void {
    const u = Math.max(0, ((x + 0.5) * guide.width) / width - 0.5);
    const v = Math.max(0, ((y + 0.5) * guide.height) / height - 0.5);
    const x0 = Math.min(guide.width - 1, Math.floor(u));
    const y0 = Math.min(guide.height - 1, Math.floor(v));
    const x1 = Math.min(guide.width - 1, x0 + 1);
    const y1 = Math.min(guide.height - 1, y0 + 1);
    const fx = u - x0;
    const fy = v - y0;
    at[0] = y0 * guide.width + x0;
    at[1] = y0 * guide.width + x1;
    at[2] = y1 * guide.width + x0;
    at[3] = y1 * guide.width + x1;
    // never quite nothing, so that the only one of its kind counts from the far side too
    near[0] = (1 - fx) * (1 - fy) + 1e-6;
    near[1] = fx * (1 - fy) + 1e-6;
    near[2] = (1 - fx) * fy + 1e-6;
    near[3] = fx * fy + 1e-6;
  }

  /** How much of a material each of the four is, in shares of one. */
  function weigh(material: number): void {
    const { data } = guide;
    let sum = 0;
    for (let k = 0; k < 4; k++) {
      const i = at[k]! * 4;
      const share = data[i + 2]! / 255;
      let same = FOREIGN;
      if (data[i] === material) same += share;
      if (data[i + 1] === material) same += 1 - share;
      const weight = near[k]! * same;
      weights[k] = weight;
      sum += weight;
    }
    for (let k = 0; k < 4; k++) weights[k]! /= sum;
  }
  return { place, weigh, neighbors: { at, weights } satisfies Neighbors };
}

const mix = ({ at, weights }: Neighbors, light: Float32Array): number =>
  weights[0]! * light[at[0]!]! +
  weights[1]! * light[at[1]!]! +
  weights[2]! * light[at[2]!]! +
  weights[3]! * light[at[3]!]!;

/** The layers of a scene are large, and several frames are of one scene: the last two stay. */
const MOST_KEPT = 2;
const kept = new Map<string, LitScene>();

export function litScene(folder: string, name: SceneName): LitScene {
  const key = `${folder} ${name}`;
  const scene = kept.get(key) ?? readScene(folder, name);
  kept.delete(key);
  kept.set(key, scene);
  for (const oldest of [...kept.keys()].slice(0, -MOST_KEPT)) kept.delete(oldest);
  return scene;
}

function readScene(folder: string, scene: SceneName): LitScene {
  const layer = (name: string, file: string): Layer => decode(readFileSync(join(folder, `${name}.${file}.png`)));
  const fine = surfacesOf[scene];
  const surfaces = layer(fine, 'surfaces');
  const second = layer(fine, 'pattern').data;
  const kinds = kindsOf(scene);
  const irradiance = kinds.map((kind) => lightOf(layer(scene, `${kind}.irradiance`).data));
  const specular = kinds.map((kind) => lightOf(layer(scene, `${kind}.specular`).data));
  const { width, height } = surfaces;
  const { place, weigh, neighbors } = upscaler(layer(scene, 'lit'), width, height);
  const row: LitRow = {
    materialA: new Uint8Array(width),
    materialB: new Uint8Array(width),
    cover: new Float32Array(width),
    patternA: new Float32Array(width),
    patternB: new Float32Array(width),
    irradianceA: lines(kinds.length, width),
    irradianceB: lines(kinds.length, width),
    specular: lines(kinds.length, width),
  };

  function fill(y: number): LitRow {
    const { data } = surfaces;
    for (let x = 0; x < width; x++) {
      const at = (y * width + x) * 4;
      row.materialA[x] = data[at]!;
      row.materialB[x] = data[at + 1]!;
      row.cover[x] = data[at + 2]! / 255;
      row.patternA[x] = data[at + 3]! / 255;
      row.patternB[x] = second[y * width + x]! / 255;
      place(x, y);
      weigh(data[at]!);
      for (let l = 0; l < kinds.length; l++) {
        row.irradianceA[l]![x] = mix(neighbors, irradiance[l]!);
        row.specular[l]![x] = mix(neighbors, specular[l]!);
      }
      if (data[at + 2] === 255) continue;
      weigh(data[at + 1]!);
      for (let l = 0; l < kinds.length; l++) row.irradianceB[l]![x] = mix(neighbors, irradiance[l]!);
    }
    return row;
  }
  return { width, height, kinds: kinds.length, row: fill };
}

/** What a material gives under each light, by light and by channel: at its first color, and at its second. */
export interface Shade {
  a: readonly (readonly number[])[];
  b: readonly (readonly number[])[];
  /** share of the specular layer that it shows */ shine: number;
}

/**
 * Works out the light that comes from the places of a row, in three channels.
 * @param bare what each light itself gives, by light and channel: what is reflected without the surface's color
 * @returns a function that fills interleaved values, three a place
 */
export function colorist(shades: readonly (Shade | undefined)[], bare: readonly (readonly number[])[]) {
  const lights = bare.length;
  // by material, light and channel: the first color, and the way from it to the second
  const first = new Float64Array(256 * lights * 3);
  const way = new Float64Array(256 * lights * 3);
  const shine = new Float64Array(256);
  shades.forEach((shade, material) => {
    if (!shade) return;
    shine[material] = shade.shine;
    for (let l = 0; l < lights; l++)
      for (let k = 0; k < 3; k++) {
        const i = (material * lights + l) * 3 + k;
        first[i] = shade.a[l]![k]!;
        way[i] = shade.b[l]![k]! - shade.a[l]![k]!;
      }
  });
  return (row: LitRow, out: Float32Array): void => {
    const width = row.cover.length;
    out.fill(0);
    for (let x = 0; x < width; x++) {
      const cover = row.cover[x]!;
      const below = row.materialA[x]!;
      const above = row.materialB[x]!;
      const gloss = cover * shine[below]! + (1 - cover) * shine[above]!;
      for (let l = 0; l < lights; l++) {
        const lit = cover * row.irradianceA[l]![x]!;
        const other = cover < 1 ? (1 - cover) * row.irradianceB[l]![x]! : 0;
        const reflected = gloss * row.specular[l]![x]!;
        const a = (below * lights + l) * 3;
        const b = (above * lights + l) * 3;
        for (let k = 0; k < 3; k++)
          out[x * 3 + k]! +=
            lit * (first[a + k]! + way[a + k]! * row.patternA[x]!) +
            other * (first[b + k]! + way[b + k]! * row.patternB[x]!) +
            reflected * bare[l]![k]!;
      }
    }
  };
}
