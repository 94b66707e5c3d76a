/**
 * Kinds of items that editors take. By itself, so that a screen can ask without the schemas of descriptors. Of a support
 * file nothing is read: a person says that an editor needs it.
 */
export const acceptedKinds = [
  'look',
  'preset',
  'camera-profile',
  'icc-profile',
  'lens-database',
  'add-on',
  'support-file',
] as const;
export type AcceptedKind = (typeof acceptedKinds)[number];

/** Whether an item of a kind can be rolled out; which editors take it, their descriptors say. */
export const isPlaceable = (kind: string): kind is AcceptedKind => (acceptedKinds as readonly string[]).includes(kind);
