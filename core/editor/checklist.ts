/**
 * The checklist of a target: what an editor or a card asks of the items that shall go there, check by check, before anything
 * is planned. What a rollout does on its own way is told apart from what a person has to change first.
 */
import type { Column, Recipe } from '../conversion/recipe';
import { encodingText, isPlain, type AssumedEncoding } from '../look/assumed-encoding';
import type { TableEncoding } from '../look/resample';
import { acceptance, honoured } from './acceptance';
import type { Accepts, TableWriter } from './accepts';
import { editorKey, type Descriptor } from './descriptor';
import { fileName } from './file-name';
import { sizeUnder } from './rendition';

/** An item that shall go to a target, by its newest version. */
export interface ThingToCheck {
  id: string;
  title: string;
  kind: string;
  format: string;
  status: string;
  input: string | null;
  result: string | null;
  /** bodies that it is for; none for any */ cameras: readonly string[];
  /** of an ICC profile; null for other files */ iccClass: string | null;
  /** points an axis of its 3D table; null where it is no such table */ points: number | null;
  encoding: { is: AssumedEncoding; /** its file does not say, and nobody else has */ assumed: boolean } | null;
}

/** What a button does about it. */
export type Cure =
  | { does: 'convert'; recipe: Exclude<Recipe, Column>; words: string }
  | { does: 'approve' }
  | { does: 'confirm-encoding' }
  | { does: 'rename' }
  | { does: 'open-scope' }
  | { does: 'leave-out' };

export type Checked =
  | { is: 'passed'; /** '' where there is nothing to add */ words: string }
  /** a rollout does it on its way */
  | { is: 'on-the-way'; words: string; cure?: Cure }
  | { is: 'to-change'; words: string; cure?: Cure };

export const checkNames = ['kind', 'approval', 'points', 'encoding', 'file', 'name', 'scope', 'count'] as const;
export type CheckName = (typeof checkNames)[number];

export const checkWords: Readonly<Record<CheckName, string>> = {
  kind: 'Taken there',
  approval: 'Approved',
  points: 'Points',
  encoding: 'Encoding',
  file: 'File',
  name: 'Name',
  scope: 'Scope',
  count: 'Count',
};

export interface CheckedThing {
  id: string;
  title: string;
  /** null where nothing can be said, since the target does not take the item as it is */
  checks: Record<CheckName, Checked | null>;
}

/** What the checks of one item are made against. */
interface Asked {
  thing: ThingToCheck;
  descriptor: Descriptor;
  accepts: Accepts;
  /** names that items before it have there, in small letters */ taken: ReadonlySet<string>;
  /** how many items before it are taken there */ before: number;
}

const passed = (words: string): Checked => ({ is: 'passed', words });

/** The table that a writer makes, be it the file or a part of it. */
function tableOf({ writer: { table, archive, entry } }: Accepts): TableWriter | null {
  if (entry) return entry.asIs ? null : (entry.table ?? null);
  return table ?? archive?.members.find((member) => member.table)?.table ?? null;
}

const lookAccepted = (descriptor: Descriptor): Accepts | undefined =>
  descriptor.accepts.find((accepts) => accepts.kind === 'look');

/** What makes a thing one that the target takes, where something does. */
function cureOfKind({ kind, format }: ThingToCheck, descriptor: Descriptor): Cure | undefined {
  if (kind === 'camera-profile' && format === 'dcp' && 'accepts' in acceptance(descriptor, { kind, format: 'icc' }))
    return {
      does: 'convert',
      recipe: { tool: 'derive', form: 'icc-input', points: 33, kelvin: 5000, camera: '', frame: '' },
      words: 'Make ICC input profiles',
    };
  if (kind !== 'preset') return undefined;
  const own = descriptor.accepts.some(
    (accepts) => accepts.kind === 'preset' && accepts.language === editorKey(descriptor),
  );
  if (own && descriptor.presets?.template)
    return {
      does: 'convert',
      recipe: { tool: 'preset', to: editorKey(descriptor) },
      words: `Write presets of ${descriptor.title}`,
    };
  const look = lookAccepted(descriptor);
  const table = look && tableOf(look);
  const size = table ? sizeUnder(table.size, table.size.prefer ?? 33) : 33;
  return look && { does: 'convert', recipe: { tool: 'bake', size, leave: [] }, words: `Make looks of ${size} points` };
}

function kindOf(thing: ThingToCheck, descriptor: Descriptor): Checked {
  const answer = acceptance(descriptor, thing);
  if ('accepts' in answer)
    return passed(answer.accepts.writer.asIs || answer.accepts.writer.entry?.asIs ? 'as it is' : '');
  const cure = cureOfKind(thing, descriptor);
  return { is: 'to-change', words: answer.reason, ...(cure ? { cure } : {}) };
}

function approvalOf({ thing }: Asked): Checked {
  if (thing.status === 'approved') return passed('');
  return {
    is: 'to-change',
    words: `a ${thing.status === 'draft' ? 'draft' : `${thing.status} version`}: only approved versions are placed`,
    ...(thing.status === 'draft' ? { cure: { does: 'approve' } as const } : {}),
  };
}

/** A file of so many points beside the one that is held. */
const derived = (points: number): Cure => ({
  does: 'convert',
  recipe: { tool: 'derive', form: 'cube', points, kelvin: 5000, camera: '', frame: '' },
  words: `Make tables of ${points} points`,
});

function pointsOf({ thing, accepts }: Asked): Checked {
  const table = tableOf(accepts);
  if (!table) return passed('as it is');
  const wanted = sizeUnder(table.size, thing.points ?? table.size.prefer ?? 33);
  if (thing.points === null)
    return { is: 'on-the-way', words: `no 3D table: becomes one of ${wanted} points`, cure: derived(wanted) };
  if (wanted === thing.points) return passed(String(wanted));
  return { is: 'on-the-way', words: `${thing.points} become ${wanted}`, cure: derived(wanted) };
}

const spaceWords: Readonly<Record<TableEncoding['primaries'], string>> = {
  srgb: 'sRGB',
  p3: 'Display P3',
  rec2020: 'Rec. 2020',
  prophoto: 'ProPhoto',
};
function encodingWords({ primaries, transfer }: TableEncoding): string {
  if (transfer === 'srgb') return `${spaceWords[primaries]}, sRGB, full`;
  if (transfer === 'linear') return `${spaceWords[primaries]}, linear, full`;
  const { below, above } = transfer.log;
  return `${spaceWords[primaries]}, log, ${below} to ${above > 0 ? '+' : ''}${above} EV`.replaceAll('-', '−');
}

function encodingOf({ thing, accepts }: Asked): Checked {
  const table = tableOf(accepts);
  if (!table || !thing.encoding) return passed('as it is');
  const { is: own, assumed } = thing.encoding;
  if (assumed)
    return {
      is: 'to-change',
      words: `nobody has said it; taken for ${encodingText(own)}`,
      cure: { does: 'confirm-encoding' },
    };
  const wanted = encodingWords(table.encoding);
  const isSame = encodingText(own) === wanted || (isPlain(own) && wanted === 'sRGB, sRGB, full');
  return isSame ? passed(wanted) : { is: 'on-the-way', words: `${encodingText(own)} becomes ${wanted}` };
}

function fileOf({ thing, accepts }: Asked): Checked {
  const { writer, extension } = accepts;
  if (writer.entry) return { is: 'on-the-way', words: 'is written into the bundle' };
  if (writer.asIs || (writer.table && writer.table.codec === thing.format)) return passed(extension);
  return { is: 'on-the-way', words: `is written as ${extension}` };
}

function nameOf({ thing, accepts, taken }: Asked): Checked {
  const { names = {}, extension } = accepts;
  const name = fileName(thing.title, extension, names, taken);
  const alone = fileName(thing.title, extension, names);
  const { max: _max, ...signs } = names;
  const whole = fileName(thing.title, extension, signs);
  if (name !== alone) return { is: 'to-change', words: `another is called ${alone} there`, cure: { does: 'rename' } };
  if (whole !== alone) return { is: 'to-change', words: `is cut to ${alone}`, cure: { does: 'rename' } };
  if (name !== `${thing.title}${extension}`) return { is: 'on-the-way', words: `is called ${name} there` };
  return passed(name);
}

/** The conditions of an item's scope, in words, and whether the target keeps to them. */
function scopeOf({ thing, descriptor, accepts }: Asked): Checked {
  // what an editor lists by its camera is for that camera, and is not to be opened to others
  const byCamera = accepts.meets?.camera === true;
  const limits = [
    ['camera', byCamera ? '' : thing.cameras.join(', ')],
    ['input', thing.input ?? ''],
    ['result', thing.result ?? ''],
  ] as const;
  const set = limits.filter(([, words]) => words !== '');
  if (!set.length) return passed(byCamera ? `for ${thing.cameras.join(', ')}` : 'open');
  const lost = set.filter(([condition]) => !honoured(descriptor, accepts).includes(condition));
  const words = (some: readonly (readonly [string, string])[]): string => some.map(([, one]) => one).join('; ');
  if (!lost.length) return { is: 'on-the-way', words: `offered for ${words(set)} alone`, cure: { does: 'open-scope' } };
  return {
    is: 'to-change',
    words: `for ${words(lost)}: offered there for every photo all the same`,
    cure: { does: 'open-scope' },
  };
}

function countOf({ accepts, before }: Asked): Checked {
  if (!accepts.most) return passed('no limit');
  const place = before + 1;
  if (place <= accepts.most) return passed(`${place} of ${accepts.most}`);
  return { is: 'to-change', words: `number ${place} of at most ${accepts.most}`, cure: { does: 'leave-out' } };
}

const ofTaken = {
  approval: approvalOf,
  points: pointsOf,
  encoding: encodingOf,
  file: fileOf,
  name: nameOf,
  scope: scopeOf,
  count: countOf,
} as const satisfies Record<Exclude<CheckName, 'kind'>, (asked: Asked) => Checked>;

const nothingSaid = Object.fromEntries(checkNames.map((name) => [name, null])) as Record<CheckName, null>;

/** Each thing, in its order, against all that a target asks. Names and places count from the first on. */
export function checklistOf(descriptor: Descriptor, things: readonly ThingToCheck[]): CheckedThing[] {
  const taken = new Map<Accepts, Set<string>>();
  return things.map((thing) => {
    const { id, title } = thing;
    const kind = kindOf(thing, descriptor);
    const answer = acceptance(descriptor, thing);
    if ('reason' in answer) return { id, title, checks: { ...nothingSaid, kind } };
    const { accepts } = answer;
    const names = taken.get(accepts) ?? new Set<string>();
    const asked: Asked = { thing, descriptor, accepts, taken: names, before: names.size };
    const checks = Object.fromEntries(Object.entries(ofTaken).map(([name, check]) => [name, check(asked)])) as Record<
      Exclude<CheckName, 'kind'>,
      Checked
    >;
    taken.set(accepts, names.add(fileName(title, accepts.extension, accepts.names, names).toLowerCase()));
    return { id, title, checks: { kind, ...checks } };
  });
}

/** One cure for all things that need the same one, in the order of the checks. */
export interface CureOfMany {
  check: CheckName;
  cure: Cure;
  things: { id: string; title: string }[];
}

const cureKey = (check: CheckName, cure: Cure): string =>
  cure.does === 'convert' ? JSON.stringify([check, cure.recipe]) : `${check} ${cure.does}`;

export function curesOf(checked: readonly CheckedThing[]): CureOfMany[] {
  const found = new Map<string, CureOfMany>();
  for (const check of checkNames)
    for (const { id, title, checks } of checked) {
      const answer = checks[check];
      if (!answer || answer.is === 'passed' || !answer.cure) continue;
      const key = cureKey(check, answer.cure);
      const many = found.get(key) ?? { check, cure: answer.cure, things: [] };
      many.things.push({ id, title });
      found.set(key, many);
    }
  return [...found.values()];
}
