/** Values as samples of 16 bits. */

/** 0…1 to 0…65535, rounded half up, held at the ends; what is no number is 0. */
export function sample16(value: number): number {
  if (value >= 1) return 65535;
  return value > 0 ? Math.floor(value * 65535 + 0.5) : 0;
}
