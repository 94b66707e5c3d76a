/**
 * What lens databases describe lenses by. Radii are in half diagonals of the picture that was measured, from its center; a
 * coefficient that is not said is 0, but for k0, which scales, and is 1.
 */
export type Coefficients = Readonly<Record<string, number>>;

export interface Model {
  coefficients: readonly string[];
  /** for a radius, another radius; or, of light, a factor */ at: (k: (name: string) => number, r: number) => number;
}

/** Where something lies that would lie at `r`. */
const radiusModels = {
  odd3: {
    coefficients: ['k0', 'k1'],
    at: (k, r) => r * (k('k0') + k('k1') * r ** 2),
  },
  odd5: {
    coefficients: ['k0', 'k1', 'k2'],
    at: (k, r) => r * (k('k0') + k('k1') * r ** 2 + k('k2') * r ** 4),
  },
  /** A. W. Fitzgibbon, "Simultaneous linear estimation of multiple view geometry and lens distortion", 2001. */
  division: {
    coefficients: ['k1', 'k2'],
    at: (k, r) => r / (1 + k('k1') * r ** 2 + k('k2') * r ** 4),
  },
  /** The radial part of WarpRectilinear, Digital Negative 1.6, chapter 7. */
  'dng-warp': {
    coefficients: ['k0', 'k1', 'k2', 'k3'],
    at: (k, r) => r * (k('k0') + k('k1') * r ** 2 + k('k2') * r ** 4 + k('k3') * r ** 6),
  },
} as const satisfies Record<string, Model>;

/** The part of the light that reaches `r`; FixVignetteRadial of the Digital Negative is written so. */
const lightModels = {
  even: {
    coefficients: ['k1', 'k2', 'k3', 'k4', 'k5'],
    at: (k, r) => 1 + k('k1') * r ** 2 + k('k2') * r ** 4 + k('k3') * r ** 6 + k('k4') * r ** 8 + k('k5') * r ** 10,
  },
} as const satisfies Record<string, Model>;

const models = {
  distortion: radiusModels,
  'lateral chromatic aberration': radiusModels,
  vignetting: lightModels,
} as const;
export type Quantity = keyof typeof models;
/** What a calibration has at its best. */
export const quantities = Object.keys(models) as Quantity[];

/** Null where the model is not one that this quantity is described by. */
export function modelOf(quantity: Quantity, name: string): Model | null {
  const ofQuantity: Readonly<Record<string, Model>> = models[quantity];
  return Object.hasOwn(ofQuantity, name) ? (ofQuantity[name] ?? null) : null;
}

/** A model with its coefficients. */
export function evaluated(model: Model, said: Coefficients): (r: number) => number {
  const k = (name: string): number => said[name] ?? (name === 'k0' ? 1 : 0);
  return (r) => model.at(k, r);
}
