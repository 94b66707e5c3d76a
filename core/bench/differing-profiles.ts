/** Which frames came with another profile than most of their camera's in the same light: cameras have profiles by light, too. */
import { groupBy } from '../lists';

export interface OnFrame {
  id: string;
  /** with its conversion */ camera: string;
  light: string;
  /** as the file names it, '' where it does not */ profile: string;
}

/** By frame, the profile that more than half of the same camera's frames in that light came with, for those that came with another. */
export function differingProfiles(frames: readonly OnFrame[]): Map<string, string> {
  const out = new Map<string, string>();
  const named = frames.filter(({ profile }) => profile);
  for (const list of groupBy(named, ({ camera, light }) => `${camera}\n${light}`).values()) {
    const counts = new Map<string, number>();
    for (const f of list) counts.set(f.profile, (counts.get(f.profile) ?? 0) + 1);
    const [most, n] = [...counts].reduce((a, b) => (b[1] > a[1] ? b : a));
    if (n * 2 > list.length) for (const f of list) if (f.profile !== most) out.set(f.id, most);
  }
  return out;
}
