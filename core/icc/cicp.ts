/** The coding-independent code points of an ICC profile (ICC.1:2022, 9.2.17; ITU-T H.273). */

const HEADER_BYTES = 128;
const ENTRY_BYTES = 12;

export interface CodePoints {
  primaries: number;
  transfer: number;
  matrix: number;
  fullRange: boolean;
}

/** Null for a profile that has none, or none that can be read. */
export function cicpOf(profile: Uint8Array): CodePoints | null {
  const view = new DataView(profile.buffer, profile.byteOffset, profile.byteLength);
  if (view.byteLength < HEADER_BYTES + 4) return null;
  const tags = view.getUint32(HEADER_BYTES);
  for (let tag = 0; tag < tags; tag++) {
    const entry = HEADER_BYTES + 4 + tag * ENTRY_BYTES;
    if (entry + ENTRY_BYTES > view.byteLength) return null;
    if (nameAt(view, entry) !== 'cicp') continue;
    const at = view.getUint32(entry + 4);
    if (at + ENTRY_BYTES > view.byteLength || nameAt(view, at) !== 'cicp') return null;
    return {
      primaries: view.getUint8(at + 8),
      transfer: view.getUint8(at + 9),
      matrix: view.getUint8(at + 10),
      fullRange: view.getUint8(at + 11) === 1,
    };
  }
  return null;
}

const nameAt = (view: DataView, at: number): string =>
  String.fromCharCode(view.getUint8(at), view.getUint8(at + 1), view.getUint8(at + 2), view.getUint8(at + 3));
