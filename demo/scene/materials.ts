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
const material = (name: string, a: string, b: string, shine = 1): Material => ({ name, a: hex(a), b: hex(b), shine });

export const materials: Record<number, Material> = {
  0: material('linen', 'b9ae9c', 'd9d0c0'),
  1: material('backdrop cloth', '5d6468', '7c8487'),
  2: material('celadon glaze', '8fb8a4', 'cfdccb'),
  3: material('copper red glaze', '8e2320', 'c98e72'),
  4: material('cobalt glaze', '1f3a7d', 'dfe3e6'),
  5: material('tenmoku glaze', '2b1a12', '9a5a2c'),
  6: material('majolica', 'e6ddc8', '2f5fa0'),
  7: material('bare clay', 'a5704c', '8a5a3c'),
  8: material('gray patches', '161616', 'f2f2f2'),
  9: material('ochre slip', 'c58b35', '4d2e1e'),
  10: material('lemon', 'e3c02b', 'd8b21f'),
  11: material('apricot', 'd5642a', 'e8a243'),
  20: material('boards', '8a6444', '5a3d28'),
  21: material('painted sky', '6f8f6a', 'a9c3dc'),
  22: material('painted flat', '9c8f7f', '6b5d55'),
  23: material('painted stairs', '8b8478', '7a2f35'),
  24: material('velvet curtain', '7d1626', 'd0a441', 0.12),
  25: material('light skin', 'd9a98a', 'cf7f6a'),
  26: material('deep skin', '7a4a32', '8f5a3e'),
  27: material('silk gown', '2f7f86', 'e7d9b0'),
  28: material('wool coat', '3a2f5c', 'c9a24a'),
  29: material('hair', '2a1c14', '5e3b24'),
  30: material('oak table', '5b4230', '3d2a1e'),
  31: material('gilding', 'c79b3f', '8c6422'),
  32: material('painted leaves', '2f4f2c', '7f9a45'),
  33: material('painted moon', 'f0e7c4', 'd9c995'),
  40: material('brocade', '7a1f2b', 'c9a24a', 0.9),
  41: material('lace', 'f1ede2', 'cfc8b6', 0),
  42: material('herringbone wool', '3b4148', '7d8287', 0.3),
  43: material('velvet cape', '123a2c', '3f7d57', 0.3),
  44: material('shot silk', '8a2f6e', 'd58aa6'),
  45: material('apron linen', 'd8cfba', 'f2ecde', 0),
  46: material('fair hair', '8f6a3a', 'd2ac6a'),
  50: material('limewash', 'b9b29f', 'd8d2c2', 0),
  51: material('white paint', 'd9d8d2', 'c4c2b8'),
  52: material('garden outside', '38582b', 'cfe0ee', 0),
  53: material('painted clouds', '5f97c9', 'eef1ee', 0),
  54: material('hedge', '234a22', '6f9440'),
  55: material('climber', '1f5a30', '86a83c'),
  56: material('petals', 'd43a6a', 'f3b8c8', 0.5),
};
