/** How large sensors are beside one of 36 × 24 mm. */

/** Crop factor of a sensor, from its sides in mm: the diagonal of 36 × 24 mm by its own. */
export const cropOf = (width: number | null, height: number | null): number | null =>
  width && height ? Math.round((Math.hypot(36, 24) / Math.hypot(width, height)) * 1000) / 1000 : null;

/** A calibration serves sensors no larger than its own; a little is allowed for rounding of crop factors. */
export const serves = (calibrated: number | null, camera: number | null): boolean =>
  calibrated === null || camera === null || calibrated <= camera * 1.02;
