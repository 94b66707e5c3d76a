/** Other forms of a camera profile: an ICC input profile at a temperature, and profiles with a stage taken out or changed. */
import { toInputProfile } from '../icc/convert';
import { profileOf, readDcp, writeDcp, type Dcp } from './dcp';
import { edit, split } from './edit';
import { anchor } from './white';

export interface ProfileAsked {
  form: string;
  title: string;
  points: number;
  kelvin: number;
  camera: string;
  /** camera values of the neutral that is put at `kelvin`; null for other forms */ neutral: readonly number[] | null;
  created: Date;
}
export interface DerivedProfile {
  bytes: Uint8Array;
  extension: string;
  residual: { maxDeltaE: number; p95DeltaE: number; meanDeltaE: number } | null;
  said: string;
}

/** Changes of a profile that stay a profile, by the form that is asked for. */
const changes: Record<string, { change: (dcp: Dcp) => Dcp; said: string }> = {
  'without-look': { change: (dcp) => edit(dcp, { drop: ['look'] }), said: 'without its look table' },
  'without-map': { change: (dcp) => edit(dcp, { drop: ['hue-sat'] }), said: 'without its hue and saturation map' },
  straight: { change: (dcp) => edit(dcp, { curve: 'linear' }), said: 'with a straight tone curve' },
  'editor-curve': {
    change: (dcp) => edit(dcp, { curve: 'editor' }),
    said: 'without a tone curve: each editor puts its own',
  },
  'first-light': { change: (dcp) => split(dcp, 0), said: 'for its first light alone' },
  'second-light': { change: (dcp) => split(dcp, 1), said: 'for its second light alone' },
};

/** The profile of a file in another form; for another camera where the form is none of those above. */
export async function deriveProfile(bytes: Uint8Array, asked: ProfileAsked): Promise<DerivedProfile> {
  const dcp = readDcp(bytes);
  const { title, created, points, kelvin, neutral, camera } = asked;
  if (asked.form === 'icc-input') {
    const made = await toInputProfile(profileOf(dcp), kelvin, { title, created, grid: points });
    return { ...made, extension: 'icc', said: `ICC input profile at ${kelvin} K, ${points} points` };
  }
  if (asked.form === 'anchored') {
    if (!neutral) throw new Error('a profile is anchored by a neutral');
    const made = edit(anchor(dcp, neutral, kelvin), { name: title });
    const said = `anchored at ${kelvin} K for the neutral ${neutral.map((value) => value.toFixed(4)).join(', ')}`;
    return { bytes: writeDcp(made), extension: 'dcp', residual: null, said };
  }
  const { change, said } = changes[asked.form] ?? {
    change: (own: Dcp) => edit(own, { camera }),
    said: `for ${camera}: to be proved on a frame of that camera`,
  };
  return { bytes: writeDcp(edit(change(dcp), { name: title })), extension: 'dcp', residual: null, said };
}
