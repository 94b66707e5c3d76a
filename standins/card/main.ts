/**
 * The Perrin Alder with its card in: when switched on, loads the looks that LOOKS.LST names, in that order.
 * Only .cube, 33 points, 24 files, short plain names.
 */
import { files, live, read, take } from '../editors/program';

live('media/ALDER/CAMERA.JSN', 'media/ALDER/REFUSED.TXT', () => {
  let loaded = 0;
  const folder = 'media/ALDER/LOOKS';
  const there = files(folder);
  let names: string[] = [];
  try {
    names = read('media/ALDER/LOOKS.LST')
      .toString('latin1')
      .split(/\r?\n/)
      .map((l) => l.trim())
      .filter(Boolean);
  } catch {
    /* a card without a list loads nothing */
  }
  const listed = names.map((n) => `${folder}/${n}`);
  const others = there.filter((p) => !listed.includes(p));
  return take([...listed, ...others], (path) => {
    const name = path.split('/').pop()!;
    if (!there.includes(path)) throw new Error('LOOKS.LST names it, but it is not on the card');
    if (others.includes(path)) throw new Error('LOOKS.LST does not name it, so the camera does not load it');
    if (path.split('/').length > 4) throw new Error('lies in a folder of its own; the camera reads only LOOKS itself');
    if (!/^[A-Za-z0-9_-]+\.cube$/.test(name))
      throw new Error('the name has characters that the camera cannot show, or is no .cube');
    if (name.length > 28) throw new Error(`the name has ${name.length} characters; the camera shows 28`);
    const lines = read(path)
      .toString('latin1')
      .split('\n')
      .filter((l) => l.trim() && !l.startsWith('#'));
    const size = lines.find((l) => l.startsWith('LUT_3D_SIZE'))?.split(/\s+/)[1];
    if (size !== '33') throw new Error(`a table of ${size ?? 'unknown'} points; the camera takes exactly 33`);
    const rows = lines.filter((l) => /^[-0-9.]/.test(l.trim()));
    if (rows.length !== 35937 || rows.some((r) => r.trim().split(/\s+/).length !== 3))
      throw new Error(`${rows.length} rows; 33 points need 35937`);
    if (++loaded > 24) throw new Error('the camera holds 24 looks, and they are all taken');
    return { title: name.replace(/\.cube$/, ''), kind: 'look', headings: [] };
  });
});
