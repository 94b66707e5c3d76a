/** How an editor takes a version: the entry of its descriptor, or the reason why it does not. */
import { usersOf, type UsedCamera } from '../records/used-there';
import type { Accepts } from './accepts';
import type { Descriptor, ScopeCondition } from './descriptor';

/** What is asked about; what is left out is not asked for. */
export interface ThingTaken {
  kind: string;
  /** '' where the form is not asked about */ format: string;
  /** bodies that it is for */ cameras?: readonly string[];
  /** of an ICC profile, in our words for it; null for other files */ iccClass?: string | null;
}

/** A version as it is asked about. */
export const thingOfVersion = (version: {
  kind: string;
  format: string;
  cameras: readonly string[];
  facts: object;
}): ThingTaken => ({ ...version, iccClass: iccClassOf(version) });

/** The class of an ICC profile, as it was read from the file; null for other files. */
export function iccClassOf({ format, facts }: { format: string; facts: object }): string | null {
  const { class: named } = facts as { class?: unknown };
  return format === 'icc' && typeof named === 'string' ? named : null;
}

export function acceptance(descriptor: Descriptor, thing: ThingTaken): { accepts: Accepts } | { reason: string } {
  const ofKind = descriptor.accepts.filter(({ kind }) => kind === thing.kind);
  if (!ofKind.length) return { reason: `${descriptor.title} takes no ${thing.kind.replace('-', ' ')}s` };
  const ofForm = ofKind.filter((accepts) => isOfForm(accepts, thing));
  if (!ofForm.length) return { reason: formReason(descriptor, ofKind, thing) };
  const fitting = ofForm.find((accepts) => conditionReason(descriptor, accepts, thing) === null);
  if (fitting) return { accepts: fitting };
  return { reason: ofForm.map((accepts) => conditionReason(descriptor, accepts, thing)).join('; ') };
}

/** By which conditions of a scope an editor leaves such a thing out for a photo. */
export const honoured = ({ honours }: Descriptor, accepts: Accepts | null): readonly ScopeCondition[] =>
  accepts?.honours ?? honours ?? [];

function isOfForm({ kind, language, formats }: Accepts, { format }: ThingTaken): boolean {
  if (kind === 'preset') return language === format;
  return !formats || format === '' || formats.includes(format);
}

/** As people call it: formats that are known by their letters are written so. */
const formatName = (format: string): string => (/^[a-z]{3}$/.test(format) ? format.toUpperCase() : format);

/** The language of an editor's presets, which goes by its name and version: "marlstone@3" is Marlstone 3. */
function languageName(language: string): string {
  const [editor = '', version = ''] = language.split('@');
  return `${editor.charAt(0).toUpperCase()}${editor.slice(1)} ${version}`.trim();
}

function formReason({ title }: Descriptor, ofKind: readonly Accepts[], { kind, format }: ThingTaken): string {
  if (kind === 'preset')
    return `${title} reads presets of ${ofKind.map(({ language }) => languageName(language ?? '')).join(', ')}; this one is of ${languageName(format)}. Convert it into a look to use it here`;
  const formats = [...new Set(ofKind.flatMap((accepts) => accepts.formats ?? []))];
  return `${title} reads ${kind.replace('-', ' ')}s as ${formats.map(formatName).join(', ')}; this one is ${formatName(format)}`;
}

/** Whether it is for cameras of which somebody has said, by naming others, that they are not used at a place. */
export const isUnusedAmong = (
  { meets }: Accepts,
  used: readonly UsedCamera[],
  bodies: readonly string[] = [],
): boolean => meets?.camera === true && used.length > 0 && usersOf(used, bodies).length === 0;

/** Which condition does not hold; null where all do. */
function conditionReason({ title }: Descriptor, { meets, headings }: Accepts, thing: ThingTaken): string | null {
  const { cameras, iccClass } = thing;
  if (meets?.camera && cameras?.length === 0)
    return `${title} asks for the camera that it is for, and none is named: name it in the item’s scope`;
  if (headings === 'camera' && cameras && cameras.length > 1)
    return `${title} keeps it in the folder of one camera, and it is for ${cameras.length}: make a copy for each`;
  if (meets?.classes && iccClass && !(meets.classes as string[]).includes(iccClass))
    return `${title} takes ICC profiles of the class ${meets.classes.join(', ')}; this one is ${iccClass}`;
  return null;
}
