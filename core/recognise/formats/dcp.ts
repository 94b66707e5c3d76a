import { DCP_MAGIC } from '../../camera/dcp';
import { cameraProfileFacts } from '../../camera/facts';
import { cautionOfProfile } from '../../camera/soundness';
import { identityIn } from '../../item/identity';
import { recognised, type Format } from '../recognised';

const LITTLE = 0x49;
const BIG = 0x4d;
const low = DCP_MAGIC & 255;
const high = DCP_MAGIC >> 8;

/** The layout of TIFF with a number of its own in the place of 42, in either byte order. */
function hasSignature(bytes: Uint8Array): boolean {
  const [first, second, third, fourth] = bytes;
  if (bytes.length <= 8 || first !== second) return false;
  if (first === LITTLE) return third === low && fourth === high;
  return first === BIG && third === high && fourth === low;
}

export const dcp: Format = {
  id: 'dcp',
  find: (file) => {
    if (!hasSignature(file.bytes)) return null;
    const facts = cameraProfileFacts(file.bytes);
    const { camera, name, stages } = facts;
    const caution = cautionOfProfile(facts);
    return recognised(file, 'camera-profile', 'dcp', camera ? `for the ${camera}` : 'for no named camera', {
      ...(name ? { title: name } : {}),
      evidence: [
        'DCP signature and a color matrix',
        camera ? `names the camera ${camera}` : 'names no camera',
        ...stages,
      ],
      facts: {
        ...facts,
        identity: identityIn({ rights: facts.copyright }),
        fileTitle: name,
        cameras: camera ? [camera] : null,
        ...(caution ? { caution } : {}),
      },
    });
  },
};
