/**
 * Renders a scene to layers under demo/scene/layers/. Run once by hand, the layers are committed:
 *   npx tsx demo/scene/render.ts light|surfaces SCENE [width] [samples] [folder]
 * Light is smooth, takes long, and is rendered smaller; surfaces are what a picture shows at 1:1.
 */
import { mkdirSync, writeFileSync } from 'node:fs';
import { encode } from 'fast-png';
import { costume } from './costume';
import { garden } from './garden';
import { night, stage } from './stage';
import { smooth, tracer, type Surfaces } from './trace';
import { vessels } from './vessels';
import { windowed } from './window';

const scenes = { vessels, stage, night, costume, window: windowed, garden };
const [what = 'light', name = 'vessels', word = '1500', spp = '16', folder = 'demo/scene/layers'] =
  process.argv.slice(2);
const scene = scenes[name as keyof typeof scenes];
const width = Number(word);
const height = Math.round((width * 2) / 3);
const started = Date.now();
const seconds = (): number => Math.round((Date.now() - started) / 1000);
const tick = (row: number): void => {
  if (row % 50 === 0) console.log(`${name}: row ${row} of ${height}, ${seconds()} s`);
};

function write(file: string, data: Uint8Array | Uint16Array, channels: 1 | 4): void {
  const depth = data instanceof Uint16Array ? 16 : 8;
  writeFileSync(
    `${folder}/${name}.${file}.png`,
    encode({ width, height, data, channels, depth }, { zlib: { level: 9 } }),
  );
}

/** Light is stored as 12-bit square roots: 4095 · √(x / 4), so that 4.0 is the brightest and noise stays small. */
const rooted = (layer: Float32Array): Uint16Array =>
  Uint16Array.from(layer, (x) => Math.round(4095 * Math.sqrt(Math.min(1, Math.max(0, x / 4)))));

function writeSurfaces(surfaces: Surfaces, file: string): void {
  const data = new Uint8Array(width * height * 4);
  for (let i = 0; i < width * height; i++)
    data.set([surfaces.materialA[i]!, surfaces.materialB[i]!, surfaces.coverage[i]!, surfaces.patternA[i]!], i * 4);
  write(file, data, 4);
}

mkdirSync(folder, { recursive: true });
if (what === 'surfaces') {
  const surfaces = tracer(scene).surfaces(width, height, tick);
  writeSurfaces(surfaces, 'surfaces');
  write('pattern', surfaces.patternB, 1);
} else {
  const layers = tracer(scene).render(width, height, Number(spp), 0, height, tick);
  smooth(layers);
  [...scene.lights.map((_, i) => `light${i}`), 'dome'].forEach((kind, i) => {
    write(`${kind}.irradiance`, rooted(layers.irradiance[i]!), 1);
    write(`${kind}.specular`, rooted(layers.specular[i]!), 1);
  });
  writeSurfaces(layers, 'lit');
}
console.log(`${name}: done in ${seconds()} s`);
