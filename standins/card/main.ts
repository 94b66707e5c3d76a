/** The Perrin Alder with its card in: loads looks from one folder when switched on. Only .cube, 33 points, 24 files, short plain names. */
import { files, live, read, take } from '../editors/program';

live('media/ALDER/CAMERA.JSN', 'media/ALDER/REFUSED.TXT', () => {
  let loaded = 0;
  return take(files('media/ALDER/LOOKS'), (path) => {
    const name = path.split('/').pop()!;
    if (path.split('/').length > 4) throw new Error('lies in a folder of its own; the camera reads only LOOKS itself');
    if (!/^[A-Za-z0-9_-]+\.cube$/.test(name)) throw new Error('the name has characters that the camera cannot show, or is no .cube');
    if (name.length > 28) throw new Error(`the name has ${name.length} characters; the camera shows 28`);
    const lines = read(path).toString('latin1').split('\n').filter((l) => l.trim() && !l.startsWith('#'));
    const size = lines.find((l) => l.startsWith('LUT_3D_SIZE'))?.split(/\s+/)[1];
    if (size !== '33') throw new Error(`a table of ${size ?? 'unknown'} points; the camera takes exactly 33`);
    const rows = lines.filter((l) => /^[-0-9.]/.test(l.trim()));
    if (rows.length !== 35937 || rows.some((r) => r.trim().split(/\s+/).length !== 3)) throw new Error(`${rows.length} rows; 33 points need 35937`);
    if (++loaded > 24) throw new Error('the camera holds 24 looks, and they are all taken');
    return { title: name.replace(/\.cube$/, ''), kind: 'look', headings: [] };
  });
});
