/** What a DCP (DNG specification 1.7, chapter 6) says of itself; the computation with its tables is elsewhere. */
import { Ifds } from '../tiff/ifd';
import { Problem } from '../problem';

export const DCP_MAGIC = 0x4352;
const stages: [number, string][] = [[50937, 'hue/saturation map'], [50982, 'look table'], [50940, 'tone curve'], [51109, 'exposure offset']];

export interface CameraProfileFacts { camera: string; name: string; copyright: string; embed: number | null; illuminants: number[]; stages: string[]; forward: boolean }

export function cameraProfileFacts(bytes: Uint8Array): CameraProfileFacts {
  const f = new Ifds(bytes);
  if (f.magic !== DCP_MAGIC) throw new Problem('dcp-magic', 'This is no DNG camera profile: its magic number is another.', 'byte 2', 'Ask the supplier for the profile again.');
  const d = f.read(f.first);
  if (f.numbers(d, 50721).length !== 9) throw new Problem('dcp-matrix', 'The profile has no color matrix of nine numbers.', 'ColorMatrix1', 'Ask the supplier for the profile again.');
  if (f.numbers(d, 50721).some((v) => !Number.isFinite(v))) throw new Problem('dcp-matrix', 'A number of the color matrix is none.', 'ColorMatrix1', 'Ask the supplier for the profile again.');
  return {
    camera: f.text(d, 50708), name: f.text(d, 50936), copyright: f.text(d, 50942), embed: f.number(d, 50941),
    illuminants: [50778, 50779].map((t) => f.number(d, t)).filter((v): v is number => v !== null),
    stages: stages.filter(([t]) => d.tags.has(t)).map(([, s]) => s), forward: d.tags.has(50964),
  };
}
