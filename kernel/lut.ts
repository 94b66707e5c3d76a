/**
 * AssemblyScript, compiled to WebAssembly with SIMD when Etagere is installed (tools/kernel.mjs): a 3D table over 8-bit RGBA
 * pixels, tetrahedral, as `applyPlain` in core/look/apply.ts does. The table is padded to four floats an entry, so that
 * a corner of a cell is one load; which of the six tetrahedra holds the color is looked up, without a branch. (Four pixels
 * at a time, packed together, was slower: there are too few registers for it.)
 *
 * `places`: for r, g, b each 256 pairs of a byte offset into the table (i32) and a fraction of the cell (f32).
 * `ways`: for each outcome of x ≥ y, y ≥ z, x ≥ z (bits 2, 1, 0) the byte offsets to the second and third corner.
 */
export function apply(
  source: usize,
  target: usize,
  pixels: i32,
  table: usize,
  places: usize,
  ways: usize,
  all: usize,
): void {
  const end = source + ((<usize>pixels) << 2),
    none = f32x4.splat(0),
    full = f32x4.splat(255.5),
    whole = f32x4.splat(8388608);
  while (source < end) {
    const pixel = load<u32>(source);
    const pr = places + ((<usize>(pixel & 255)) << 3),
      pg = places + ((<usize>((pixel >> 8) & 255)) << 3),
      pb = places + ((<usize>((pixel >> 16) & 255)) << 3);
    const o = table + <usize>load<u32>(pr) + <usize>load<u32>(pg, 2048) + <usize>load<u32>(pb, 4096);
    // fractions are not negative, so that their bits are ordered as they are
    const i = load<i32>(pr, 4),
      j = load<i32>(pg, 2052),
      k = load<i32>(pb, 4100),
      way = ways + ((<usize>(i >= j)) << 5) + ((<usize>(j >= k)) << 4) + ((<usize>(i >= k)) << 3);
    const x = v128.load32_splat(pr, 4),
      y = v128.load32_splat(pg, 2052),
      z = v128.load32_splat(pb, 4100);
    const u = f32x4.pmax(f32x4.pmax(x, y), z),
      w = f32x4.pmin(f32x4.pmin(x, y), z),
      v = f32x4.sub(f32x4.add(f32x4.add(x, y), z), f32x4.add(u, w));
    const a = v128.load(o),
      b = v128.load(o + <usize>load<u32>(way)),
      c = v128.load(o + <usize>load<u32>(way, 4)),
      d = v128.load(o + all);
    const sum = f32x4.add(
      f32x4.add(a, f32x4.mul(u, f32x4.sub(b, a))),
      f32x4.add(f32x4.mul(v, f32x4.sub(c, b)), f32x4.mul(w, f32x4.sub(d, c))),
    );
    // entries hold a half more than their value, so that to cut is to round; added to 2^23, a whole number stands in the lowest byte
    const held = f32x4.add(f32x4.floor(f32x4.pmin(f32x4.pmax(sum, none), full)), whole),
      bytes = i8x16.shuffle(held, held, 0, 4, 8, 12, 0, 4, 8, 12, 0, 4, 8, 12, 0, 4, 8, 12);
    store<u32>(target, ((<u32>i32x4.extract_lane(bytes, 0)) & 0x00ffffff) | (pixel & 0xff000000));
    source += 4;
    target += 4;
  }
}

/**
 * Camera values of 16 bits through a profile's table to 8-bit RGBA, as `developPlain` in core/camera/table.ts does: the place
 * of a value in the table is the square root of its share of the neutral (`kr`, `kg`, `kb`: one by white level times neutral).
 */
export function develop(
  source: usize,
  target: usize,
  pixels: i32,
  table: usize,
  size: i32,
  kr: f32,
  kg: f32,
  kb: f32,
  ways: usize,
  all: usize,
): void {
  const end = target + ((<usize>pixels) << 2),
    none = f32x4.splat(0),
    full = f32x4.splat(255.5),
    whole = f32x4.splat(8388608),
    last = <f32>(size - 1),
    most = size - 2,
    sg = 16 * size,
    sb = sg * size;
  while (target < end) {
    const r = min<f32>(last, sqrt<f32>(<f32>load<u16>(source) * kr) * last),
      g = min<f32>(last, sqrt<f32>(<f32>load<u16>(source, 2) * kg) * last),
      b = min<f32>(last, sqrt<f32>(<f32>load<u16>(source, 4) * kb) * last);
    const ir = min<i32>(most, <i32>r),
      ig = min<i32>(most, <i32>g),
      ib = min<i32>(most, <i32>b),
      x = r - <f32>ir,
      y = g - <f32>ig,
      z = b - <f32>ib;
    const o = table + <usize>(ir * 16 + ig * sg + ib * sb);
    const xy = x >= y,
      yz = y >= z,
      xz = x >= z,
      way = ways + ((<usize>xy) << 5) + ((<usize>yz) << 4) + ((<usize>xz) << 3);
    const u = select<f32>(select<f32>(x, z, xz), select<f32>(y, z, yz), xy),
      w = select<f32>(select<f32>(z, y, yz), select<f32>(z, x, xz), xy),
      v = x + y + z - u - w;
    const a = v128.load(o),
      p = v128.load(o + <usize>load<u32>(way)),
      q = v128.load(o + <usize>load<u32>(way, 4)),
      d = v128.load(o + all);
    const sum = f32x4.add(
      f32x4.add(a, f32x4.mul(f32x4.splat(u), f32x4.sub(p, a))),
      f32x4.add(f32x4.mul(f32x4.splat(v), f32x4.sub(q, p)), f32x4.mul(f32x4.splat(w), f32x4.sub(d, q))),
    );
    const held = f32x4.add(f32x4.floor(f32x4.pmin(f32x4.pmax(sum, none), full)), whole),
      bytes = i8x16.shuffle(held, held, 0, 4, 8, 12, 0, 4, 8, 12, 0, 4, 8, 12, 0, 4, 8, 12);
    store<u32>(target, ((<u32>i32x4.extract_lane(bytes, 0)) & 0x00ffffff) | 0xff000000);
    source += 6;
    target += 4;
  }
}

/** Adds to `counts`: pixels with a channel at full scale, with one at nothing (two i32), and which luminances there are (256 bytes). */
export function ends(source: usize, pixels: i32, counts: usize): void {
  const end = source + ((<usize>pixels) << 2);
  let high = load<i32>(counts),
    low = load<i32>(counts, 4);
  while (source < end) {
    const pixel = load<u32>(source),
      r = pixel & 255,
      g = (pixel >> 8) & 255,
      b = (pixel >> 16) & 255;
    high += <i32>(r == 255 || g == 255 || b == 255);
    low += <i32>(r == 0 || g == 0 || b == 0);
    store<u8>(counts + 8 + <usize>(<f64>r * 0.2126 + <f64>g * 0.7152 + <f64>b * 0.0722 + 0.5), 1);
    source += 4;
  }
  store<i32>(counts, high);
  store<i32>(counts, low, 4);
}
