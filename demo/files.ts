/** Writes the demo's files from its designs: `.cube` tables, Oxbow's packets, Marlstone's INI text, and packs as ZIP. */
import { strToU8, zipSync, type Zippable } from 'fflate';
import { fromFunction, writeCube, type Look } from '@/core/look';
import { compile } from '@/core/preset/render';
import { escapeXml } from '@/core/text';
import type { Design, MarlstonePreset, OxbowPreset } from './designs';

const clip = (v: number): number => Math.min(1, Math.max(0, v));

export function lookOf(design: Design, size = design.size ?? 33): Look {
  const evaluate = compile(design.settings);
  return fromFunction(size, design.title, (values) => {
    evaluate(values[0]!, values[1]!, values[2]!, values, 0);
    values[0] = clip(values[0]!);
    values[1] = clip(values[1]!);
    values[2] = clip(values[2]!);
  });
}
export const cubeOf = (design: Design, size?: number): string => writeCube(lookOf(design, size));

/** A 1D table with a film-like bend, one curve for all channels. */
export function cube1d(title: string, gamma: number): string {
  const size = 256;
  const table = new Float32Array(size * 3);
  for (let i = 0; i < size; i++) table.fill(clip(0.02 + 0.96 * Math.pow(i / (size - 1), gamma)), i * 3, i * 3 + 3);
  return writeCube({
    format: 'cube',
    kind: '1d',
    size,
    table,
    title,
    domain: { min: [0, 0, 0], max: [1, 1, 1] },
    comments: [],
    warnings: [],
  });
}

/** An XMP packet (ISO 16684-1; the optional x:xmpmeta wrapper is left out). */
export function oxbowOf(oxbowPreset: OxbowPreset): string {
  const steps = oxbowPreset.steps.map(
    ([step, attributes]) =>
      `     <rdf:li run:step="${step}"${Object.entries(attributes)
        .map(([k, v]) => ` run:${k}="${escapeXml(String(v))}"`)
        .join('')}/>`,
  );
  return [
    '<?xpacket begin="\ufeff" id="W5M0MpCehiHzreSzNTczkc9d"?>',
    '<rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#">',
    ' <rdf:Description rdf:about="" xmlns:dc="http://purl.org/dc/elements/1.1/" xmlns:run="https://oxbow.example/ns/run/2/" run:edition="2">',
    `  <dc:title><rdf:Alt><rdf:li xml:lang="x-default">${escapeXml(oxbowPreset.title)}</rdf:li></rdf:Alt></dc:title>`,
    `  <dc:subject><rdf:Bag>${oxbowPreset.headings.map((h) => `<rdf:li>${escapeXml(h)}</rdf:li>`).join('')}</rdf:Bag></dc:subject>`,
    '  <run:steps>',
    '    <rdf:Seq>',
    ...steps,
    '    </rdf:Seq>',
    '  </run:steps>',
    ' </rdf:Description>',
    '</rdf:RDF>',
    '<?xpacket end="w"?>',
    '',
  ].join('\n');
}

export const marlstoneOf = (marlstonePreset: MarlstonePreset): string =>
  [
    '; Marlstone preset',
    '[marlstone]',
    'edition=3',
    `name=${marlstonePreset.title}`,
    `drawer=${marlstonePreset.drawer}`,
    ...marlstonePreset.sections.flatMap(([name, attributes]) => [
      '',
      `[${name}]`,
      ...Object.entries(attributes).map(([k, v]) => `${k}=${v}`),
    ]),
    '',
  ].join('\n');

const date = new Date(Date.UTC(2026, 10, 2, 9, 30));
export const zipOf = (files: Record<string, string | Uint8Array>): Uint8Array => {
  const tree: Zippable = {};
  for (const [path, c] of Object.entries(files)) tree[path] = [typeof c === 'string' ? strToU8(c) : c, { mtime: date }];
  return zipSync(tree, { level: 6 });
};
