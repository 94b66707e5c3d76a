/** ASC Color Decision List files (ASC CDL 1.2): .cc, .ccc and .cdl. Read into corrections; slope and power must be positive. */
import { Problem } from '../problem';
import { decodeXml, strictParser } from '../xml';

export interface Correction {
  id: string;
  slope: number[];
  offset: number[];
  power: number[];
  saturation: number;
  description: string;
}
export const CDL_ROOTS = ['ColorDecisionList', 'ColorCorrectionCollection', 'ColorCorrection'];

export function readCdl(bytes: Uint8Array): Correction[] {
  const { parser, fault } = strictParser('CDL file');
  const out: Correction[] = [];
  const again = 'Ask the supplier for the file again, or export it anew from the program that made it.';
  let now: Correction | null = null;
  let text = '';
  let depth = 0;
  parser.on('opentag', (tag) => {
    if (++depth > 20) throw fault('xml-depth', 'Elements are nested more than 20 deep.', again);
    text = '';
    if (tag.local === 'ColorCorrection') {
      if (out.length >= 5000) throw fault('cdl-count', 'The list holds more than 5,000 corrections.', again);
      out.push(
        (now = {
          id: tag.attributes.id?.value ?? '',
          slope: [1, 1, 1],
          offset: [0, 0, 0],
          power: [1, 1, 1],
          saturation: 1,
          description: '',
        }),
      );
    }
  });
  parser.on('text', (part) => {
    text += part;
  });
  parser.on('closetag', (tag) => {
    depth--;
    if (!now) return;
    const triple = (low: number): number[] => {
      const values = text.trim().split(/\s+/).map(Number);
      if (values.length !== 3 || values.some((n) => !Number.isFinite(n) || n < low))
        throw fault('cdl-number', `${tag.local} needs three numbers${low === 0 ? ', none below zero' : ''}.`, again);
      return values;
    };
    if (tag.local === 'Slope') now.slope = triple(0);
    else if (tag.local === 'Offset') now.offset = triple(-Infinity);
    else if (tag.local === 'Power') {
      now.power = triple(0);
      if (now.power.some((p) => p <= 0)) throw fault('cdl-number', 'Power has to be above zero.', again);
    } else if (tag.local === 'Saturation') {
      now.saturation = Number(text.trim());
      if (!(now.saturation >= 0) || !Number.isFinite(now.saturation))
        throw fault('cdl-number', 'Saturation needs one number, not below zero.', again);
    } else if (tag.local === 'Description') now.description = text.trim().slice(0, 400);
    else if (tag.local === 'ColorCorrection') now = null;
    text = '';
  });
  parser.write(decodeXml(bytes, 'CDL file')).close();
  if (!out.length) throw new Problem('cdl-empty', 'There is no ColorCorrection in this file.', 'the root', again);
  return out;
}
