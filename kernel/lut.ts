/**
 * AssemblyScript, compiled to WebAssembly with SIMD when Etagere is installed (tools/kernel.mjs): a 3D table over 8-bit RGBA
 * pixels, tetrahedral, as `applyPlain` in core/look/apply.ts does. The table is padded to four floats an entry, so that
 * a corner of a cell is one load; which of the six tetrahedra holds the color is looked up, without a branch. (Four pixels
 * at a time, packed together, was slower: there are too few registers for it.)
 *
 * `places`: for r, g, b each 256 pairs of a byte offset into the table (i32) and a fraction of the cell (f32).
 * `ways`: for each outcome of x ≥ y, y ≥ z, x ≥ z (bits 2, 1, 0) the byte offsets to the second and third corner.
 */
export function apply(source: usize, target: usize, pixels: i32, table: usize, places: usize, ways: usize, all: usize): void {
  const end = source + ((<usize>pixels) << 2);
  while (source < end) {
    const pixel = load<u32>(source);
    const pr = places + ((<usize>(pixel & 255)) << 3), pg = places + ((<usize>((pixel >> 8) & 255)) << 3), pb = places + ((<usize>((pixel >> 16) & 255)) << 3);
    const o = table + <usize>load<u32>(pr) + <usize>load<u32>(pg, 2048) + <usize>load<u32>(pb, 4096);
    const x = load<f32>(pr, 4), y = load<f32>(pg, 2052), z = load<f32>(pb, 4100);
    const xy = x >= y, yz = y >= z, xz = x >= z, way = ways + ((<usize>xy) << 5) + ((<usize>yz) << 4) + ((<usize>xz) << 3);
    // largest and smallest by selection: the machine's own maximum and minimum have to ask for NaN
    const u = select<f32>(select<f32>(x, z, xz), select<f32>(y, z, yz), xy), w = select<f32>(select<f32>(z, y, yz), select<f32>(z, x, xz), xy), v = x + y + z - u - w;
    const a = v128.load(o), b = v128.load(o + <usize>load<u32>(way)), c = v128.load(o + <usize>load<u32>(way, 4)), d = v128.load(o + all);
    const sum = f32x4.add(
      f32x4.add(a, f32x4.mul(f32x4.splat(u), f32x4.sub(b, a))),
      f32x4.add(f32x4.mul(f32x4.splat(v), f32x4.sub(c, b)), f32x4.mul(f32x4.splat(w), f32x4.sub(d, c))));
    const whole = i32x4.trunc_sat_f32x4_s(sum), narrow = i16x8.narrow_i32x4_s(whole, whole), bytes = i8x16.narrow_i16x8_u(narrow, narrow);
    store<u32>(target, (<u32>i32x4.extract_lane(bytes, 0) & 0x00ffffff) | (pixel & 0xff000000));
    source += 4;
    target += 4;
  }
}
