/** Directories of TIFF-like files, as photos and camera profiles are: the stand-ins' own reader. */

export interface Field {
  /** the first number, or where more than fits begins */ value: number;
  /** where it is text */ text: string;
}

/** The fields of one directory by their tags. Throws where the file ends before. */
export function directory(bytes: Buffer, from?: number): Map<number, Field> {
  const little = bytes[0] === 0x49;
  const u16 = (at: number): number => (little ? bytes.readUInt16LE(at) : bytes.readUInt16BE(at));
  const u32 = (at: number): number => (little ? bytes.readUInt32LE(at) : bytes.readUInt32BE(at));
  const start = from ?? u32(4);
  const fields = new Map<number, Field>();
  for (let n = 0; n < u16(start); n++) {
    const at = start + 2 + n * 12;
    const [kind, count] = [u16(at + 2), u32(at + 4)];
    const begin = count > 4 ? u32(at + 8) : at + 8;
    const isText = kind === 2;
    fields.set(u16(at), {
      value: kind === 3 ? u16(at + 8) : u32(at + 8),
      text: isText
        ? bytes
            .toString('utf8', begin, begin + count)
            .replace(/\0.*$/s, '')
            .trim()
        : '',
    });
  }
  return fields;
}
