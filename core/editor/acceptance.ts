/** How an editor takes a version: the entry of its descriptor, or the reason why it does not. */
import type { Accepts, Descriptor } from './descriptor';

export function acceptance(
  descriptor: Descriptor,
  thing: { kind: string; format: string },
): { accepts: Accepts } | { reason: string } {
  const ofKind = descriptor.accepts.filter((a) => a.kind === thing.kind);
  if (!ofKind.length) return { reason: `${descriptor.title} takes no ${thing.kind.replace('-', ' ')}s` };
  const accepts = ofKind.find((a) => a.kind !== 'preset' || a.language === thing.format);
  return accepts
    ? { accepts }
    : {
        reason: `${descriptor.title} reads presets of ${ofKind.map((a) => a.language).join(', ')}; this one is of ${thing.format}. Convert it into a look to use it here`,
      };
}
