/** What is to be said of a candidate on a frame before anybody trusts the cell. */
import { cameraForm } from '../records/names';

export interface OnRow {
  /** with its conversion */ camera: string;
  fileKind: 'rendered' | 'camera data';
}
export interface OnColumn {
  /** the cameras that the column's profile is for; null without a profile, none for any */ profileFor:
    readonly string[] | null;
  /** its profile is anchored to the frame's own neutral */ anchored: boolean;
  /** looks laid over it, each with its strength in percent and the versions that it and its sources are */ looks: readonly {
    strength: number;
    roots: readonly string[];
    /** it calls a look that was made from it */ doubled: boolean;
  }[];
}

/** The gravest caution, or ''. */
export function cautionOf(frame: OnRow, column: OnColumn): string {
  const { looks, profileFor } = column;
  if (looks.some(({ doubled }) => doubled)) return 'the same effect twice';
  if (looks.some((a, i) => looks.some((b, k) => k < i && a.roots.some((v) => b.roots.includes(v)))))
    return 'the same effect twice';
  if (frame.fileKind === 'camera data')
    return profileFor?.length && !column.anchored && !profileFor.some((c) => cameraForm(c) === cameraForm(frame.camera))
      ? `for the ${profileFor[0]}`
      : '';
  return looks.some((l) => l.strength > 100) || looks.length > 1 ? 'heavy for a rendered file' : '';
}
