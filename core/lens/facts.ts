/** What a lens database (our open XML format) holds, counted; its models are computed elsewhere. */
import { Problem } from '../problem';
import { decodeXml, strictParser } from '../xml';
import { lensName } from './name';

export const LENS_NAMESPACE = 'https://etagere.example/ns/lens-database/1';
export const LENS_ROOT = 'lens-database';

/** Refuses a file whose first element is not that of a lens database. */
export function checkRoot(tag: { local: string; uri: string }): void {
  if (tag.local !== LENS_ROOT || tag.uri !== LENS_NAMESPACE)
    throw new Problem('lens-root', 'This is no lens database.', 'the root', 'Ask the supplier for the file again.');
}

export interface LensFacts {
  release: string;
  /** cameras that it names */ bodies: number;
  mounts: string[];
  lenses: string[];
  series: number;
  samples: number;
}

export function lensFacts(bytes: Uint8Array): LensFacts {
  const { parser, fault } = strictParser('lens database');
  const out: LensFacts = { release: '', bodies: 0, mounts: [], lenses: [], series: 0, samples: 0 };
  let depth = 0;
  parser.on('opentag', (tag) => {
    if (++depth > 20)
      throw fault('xml-depth', 'Elements are nested more than 20 deep.', 'Ask the supplier for the file again.');
    const attribute = (n: string): string => tag.attributes[n]?.value ?? '';
    if (depth === 1) {
      checkRoot(tag);
      out.release = attribute('release');
    } else if (tag.local === 'camera') out.bodies++;
    else if (tag.local === 'mount') out.mounts.push(attribute('name'));
    else if (tag.local === 'lens' && out.lenses.length < 5000)
      out.lenses.push(lensName({ maker: attribute('maker'), model: attribute('model') }).trim());
    else if (tag.local === 'series') out.series++;
    else if (tag.local === 'sample') out.samples++;
  });
  parser.on('closetag', () => {
    depth--;
  });
  parser.write(decodeXml(bytes, 'lens database')).close();
  return out;
}
