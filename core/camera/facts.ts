/** What a camera profile says of itself, once it is found to be one that renders. */
import { numbersOf, profileOf, readDcp, textOf } from './dcp';
import { T } from './tags';

const stages: [number, string][] = [
  [T.map[0], 'hue/saturation map'],
  [T.look, 'look table'],
  [T.curve, 'tone curve'],
  [T.exposure, 'exposure offset'],
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
  profileOf(dcp);
  return {
    camera: textOf(dcp, T.camera),
    name: textOf(dcp, T.name),
    copyright: textOf(dcp, T.copyright),
    embed: numbersOf(dcp, T.embed)[0] ?? null,
    illuminants: T.illuminant.map((t) => numbersOf(dcp, t)[0]).filter((v): v is number => v !== undefined),
    stages: stages.filter(([t]) => dcp.tags.has(t)).map(([, s]) => s),
    forward: dcp.tags.has(T.forward[0]),
  };
}
