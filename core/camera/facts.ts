/** What a camera profile says of itself, once it is found to be one that renders. */
import { numbersOf, profileOf, readDcp, textOf } from './dcp';
import { checkProfile } from './soundness';
import { read } from './tags';

const stages: [number, string][] = [
  [read.map[0], 'hue/saturation map'],
  [read.look, 'look table'],
  [read.curve, 'tone curve'],
  [read.exposure, 'exposure offset'],
];

export interface CameraProfileFacts {
  camera: string;
  name: string;
  copyright: string;
  embed: number | null;
  illuminants: number[];
  stages: string[];
  forward: boolean;
}

export function cameraProfileFacts(bytes: Uint8Array): CameraProfileFacts {
  const dcp = readDcp(bytes);
  checkProfile(profileOf(dcp));
  return {
    camera: textOf(dcp, read.camera),
    name: textOf(dcp, read.name),
    copyright: textOf(dcp, read.copyright),
    embed: numbersOf(dcp, read.embed)[0] ?? null,
    illuminants: read.illuminant.map((t) => numbersOf(dcp, t)[0]).filter((v): v is number => v !== undefined),
    stages: stages.filter(([t]) => dcp.tags.has(t)).map(([, s]) => s),
    forward: dcp.tags.has(read.forward[0]),
  };
}
