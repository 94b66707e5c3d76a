/** The rungs of a camera profile above its matrices, in their order. */
export const STAGES = ['hue-sat', 'exposure', 'look', 'curve'] as const;
export type Stage = (typeof STAGES)[number];
