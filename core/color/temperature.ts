/**
 * Chromaticity of a black body, as CIE 1960 u, v, by Krystek's rational approximation
 * (M. Krystek, Color Research and Application 10, 1985; 1000–15000 K, within 8e-5).
 */
export function planckian(kelvin: number): [number, number] {
  const t = kelvin;
  const t2 = t * t;
  return [
    (0.860117757 + 1.54118254e-4 * t + 1.28641212e-7 * t2) / (1 + 8.42420235e-4 * t + 7.08145163e-7 * t2),
    (0.317398726 + 4.22806245e-5 * t + 4.20481691e-8 * t2) / (1 - 2.89741816e-5 * t + 1.61456053e-7 * t2),
  ];
}

/** CIE 1960 u, v → chromaticity x, y. */
export const xyOfUv = ([u, v]: readonly [number, number]): [number, number] => [
  (3 * u) / (2 * u - 8 * v + 4),
  (2 * v) / (2 * u - 8 * v + 4),
];

/** Unit normal of the black-body locus at a temperature, in u, v, pointing towards magenta (falling v). */
export function locusNormal(kelvin: number): [number, number] {
  const cooler = planckian(kelvin * 0.999);
  const warmer = planckian(kelvin * 1.001);
  const du = warmer[0] - cooler[0];
  const dv = warmer[1] - cooler[1];
  const l = Math.hypot(du, dv);
  return du > 0 ? [dv / l, -du / l] : [-dv / l, du / l];
}
