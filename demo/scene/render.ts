/**
 * Renders a scene to layers under demo/scene/layers/. Run once by hand, the layers are committed:
 *   npx tsx demo/scene/render.ts vessels|stage [width] [samples] [folder]
 */
import { mkdirSync, writeFileSync } from 'node:fs';
import { encode } from 'fast-png';
import { stage } from './stage';
import { smooth, tracer } from './trace';
import { vessels } from './vessels';

const [name = 'vessels', word = '1500', spp = '16', folder = 'demo/scene/layers'] = process.argv.slice(2);
const scene = { vessels, stage }[name as 'vessels' | 'stage'];
const width = Number(word);
const height = Math.round((width * 2) / 3);
const started = Date.now();
const layers = tracer(scene)(width, height, Number(spp), 0, height, (row) => {
  if (row % 50 === 0) console.log(`${name}: row ${row} of ${height}, ${Math.round((Date.now() - started) / 1000)} s`);
});
smooth(layers);
mkdirSync(folder, { recursive: true });

/** Light is stored as 12-bit square roots: 4095 · √(x / 4), so that 4.0 is the brightest and noise stays small. */
function save(layer: Float32Array, file: string): void {
  const data = new Uint16Array(layer.length);
  for (let i = 0; i < layer.length; i++)
    data[i] = Math.round(4095 * Math.sqrt(Math.min(1, Math.max(0, layer[i]! / 4))));
  writeFileSync(`${folder}/${file}`, encode({ width, height, data, channels: 1, depth: 16 }, { zlib: { level: 9 } }));
}
const kinds = [...scene.lights.map((_, i) => `light${i}`), 'dome'];
kinds.forEach((kind, i) => {
  save(layers.irradiance[i]!, `${name}.${kind}.irradiance.png`);
  save(layers.specular[i]!, `${name}.${kind}.specular.png`);
});
const data = new Uint8Array(width * height * 4);
const second = new Uint8Array(width * height);
for (let i = 0; i < width * height; i++)
  data.set([layers.materialA[i]!, layers.materialB[i]!, layers.coverage[i]!, layers.patternA[i]!], i * 4);
second.set(layers.patternB);
writeFileSync(
  `${folder}/${name}.materials.png`,
  encode({ width, height, data, channels: 4, depth: 8 }, { zlib: { level: 9 } }),
);
writeFileSync(
  `${folder}/${name}.pattern.png`,
  encode({ width, height, data: second, channels: 1, depth: 8 }, { zlib: { level: 9 } }),
);
console.log(`${name}: done in ${Math.round((Date.now() - started) / 1000)} s`);
