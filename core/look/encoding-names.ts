/** The words in which an encoding is said, in the order in which they are offered: its files, the form and the request have them from here. */
export const primaryNames = ['sRGB', 'Display P3', 'Rec. 2020', 'ProPhoto'] as const;
export const transferNames = ['sRGB', 'linear', 'gamma 2.2', 'gamma 2.4'] as const;
export const rangeNames = ['full', 'legal'] as const;
export const referredNames = ['display', 'scene'] as const;
export const whiteNames = ['D65', 'D50'] as const;

export type PrimaryName = (typeof primaryNames)[number];
export type TransferName = (typeof transferNames)[number];
export type RangeName = (typeof rangeNames)[number];
export type ReferredName = (typeof referredNames)[number];
export type WhiteName = (typeof whiteNames)[number];
