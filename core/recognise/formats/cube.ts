import { readCube } from '../../look/cube';
import { lookFacts, recognised, tableNote, type Format } from '../recognised';

const keywords = /^\s*(#[^\n]*\n\s*)*(LUT_[13]D_SIZE|TITLE\s+"|DOMAIN_M|LUT_[13]D_INPUT_RANGE)/m;

export const cube: Format = {
  id: 'cube',
  find: (file) => {
    if (!keywords.test(file.start) && file.extension !== 'cube') return null;
    const look = readCube(file.bytes);
    const keyword = look.kind === '3d' ? 'LUT_3D_SIZE' : 'LUT_1D_SIZE';
    return recognised(file, 'look', 'cube', tableNote(look), {
      ...(look.title ? { title: look.title } : {}),
      facts: lookFacts(look),
      look,
      evidence: [`${keyword} ${look.size} and all of its rows`],
    });
  },
};
