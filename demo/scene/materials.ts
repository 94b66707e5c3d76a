/**
 * The materials of the demo scenes: two linear sRGB reflectances each, which the layers' pattern mixes.
 * Row number = material index in the layers.
 */
type Rgb = [number, number, number];
export interface Material {
  name: string;
  a: Rgb;
  b: Rgb;
  /** share of the specular layer that it shows */ shine: number;
}

/** Reflectance from an sRGB hex color, decoded to linear. */
const hex = (text: string): Rgb =>
  [0, 2, 4].map((i) => {
    const v = parseInt(text.slice(i, i + 2), 16) / 255;
    return v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4;
  }) as Rgb;
const m = (name: string, a: string, b: string, shine = 1): Material => ({ name, a: hex(a), b: hex(b), shine });

export const materials: Record<number, Material> = {
  0: m('linen', 'b9ae9c', 'd9d0c0'),
  1: m('backdrop cloth', '5d6468', '7c8487'),
  2: m('celadon glaze', '8fb8a4', 'cfdccb'),
  3: m('copper red glaze', '8e2320', 'c98e72'),
  4: m('cobalt glaze', '1f3a7d', 'dfe3e6'),
  5: m('tenmoku glaze', '2b1a12', '9a5a2c'),
  6: m('majolica', 'e6ddc8', '2f5fa0'),
  7: m('bare clay', 'a5704c', '8a5a3c'),
  8: m('gray patches', '161616', 'f2f2f2'),
  9: m('ochre slip', 'c58b35', '4d2e1e'),
  10: m('lemon', 'e3c02b', 'd8b21f'),
  11: m('apricot', 'd5642a', 'e8a243'),
  20: m('boards', '8a6444', '5a3d28'),
  21: m('painted sky', '6f8f6a', 'a9c3dc'),
  22: m('painted flat', '9c8f7f', '6b5d55'),
  23: m('painted stairs', '8b8478', '7a2f35'),
  24: m('velvet curtain', '7d1626', 'd0a441', 0.12),
  25: m('light skin', 'd9a98a', 'cf7f6a'),
  26: m('deep skin', '7a4a32', '8f5a3e'),
  27: m('silk gown', '2f7f86', 'e7d9b0'),
  28: m('wool coat', '3a2f5c', 'c9a24a'),
  29: m('hair', '2a1c14', '5e3b24'),
  30: m('oak table', '5b4230', '3d2a1e'),
  31: m('gilding', 'c79b3f', '8c6422'),
  32: m('painted leaves', '2f4f2c', '7f9a45'),
  33: m('painted moon', 'f0e7c4', 'd9c995'),
};
