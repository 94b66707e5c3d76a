/**
 * What happened, told as a person would write it down: by its subject and its action. An event that has no sentence here
 * cannot be recorded.
 */

/** What an event says of its subject, before or after. */
export type Said = Readonly<Record<string, unknown>>;

/** The sentence after the name of who did it; `{title}` is where the subject is named, as a link where there is one. */
type Sentence = string | ((after: Said, before: Said) => string);

const text = (value: unknown): string => {
  if (typeof value === 'string') return value;
  return typeof value === 'number' ? value.toLocaleString('en') : '';
};
const counted = (value: unknown, one: string, many = `${one}s`): string => {
  const n = typeof value === 'number' ? value : 0;
  return `${n.toLocaleString('en')} ${n === 1 ? one : many}`;
};
const listed = (value: unknown): string => (Array.isArray(value) ? value.map(text).filter(Boolean).join(', ') : '');
/** A part of a sentence that is there only where there is something to say. */
const when = (value: unknown, words: (value: string) => string): string => (text(value) ? words(text(value)) : '');
const version = ({ version: number }: Said): string => when(number, (words) => `, version ${words}`);
const ribbon = ({ whose }: Said): string => (whose === 'house' ? 'the house ribbon' : 'their own ribbon');
const judgement = ({ frames, strength, words }: Said): string =>
  ` on ${counted(frames, 'frame')} at ${text(strength)} %${when(words, (said) => `: “${said}”`)}`;
const choiceCase = ({ client, camera, light }: Said): string =>
  [text(camera) || 'any camera', text(light) || 'any light', text(client) && `for ${text(client)}`]
    .filter(Boolean)
    .join(', ');
const wanted = (state: string): Sentence => `noted that what was asked for {title} is ${state}`;

export const sentences = {
  arrival: {
    announced: (after) => `began to bring {title} in, ${counted(after.files, 'file')}`,
    arrived: 'brought {title} in',
    read: (after) => `read {title} and found ${counted(after.entries, 'file')} in it`,
    failed: 'could not read {title}',
    stopped: 'stopped reading {title}',
    corrected: (after, before) =>
      text(after.title)
        ? `changed the title “${text(before.title)}” in {title} to “${text(after.title)}”`
        : `corrected what becomes of ${counted(after.entries, 'file')} of {title}`,
    accepted: (after) => `took ${counted(after.items, 'item')} in from {title}`,
    'put back': 'undid the intake of {title}',
    'read again': 'had {title} read again',
    discarded: 'discarded {title}',
    'brought back': 'brought {title} back to be settled',
    dropped: 'gave {title} up before it had come whole',
  },
  item: {
    made: 'added {title}',
    'version added': 'took in a new version of {title}',
    'variant added': 'took in another form of {title}',
    approved: (after) => `approved {title}${version(after)}`,
    'approval taken back': (_, before) => `took the approval of {title} back${version(before)}`,
    retired: (after) => `retired {title}${version(after)}`,
    renamed: 'renamed {title}',
    described: 'changed {title}',
    archived: 'put {title} into the archive',
    restored: 'brought {title} back from the archive',
    'encoding confirmed': 'confirmed the encoding of {title}',
    'ribbon set': (after) => `set ${ribbon(after)} on {title}`,
    'ribbon taken off': (after) => `took ${ribbon(after)} off {title}`,
    moved: (after, before) => `moved {title} from ${text(before.shelf)} to ${text(after.shelf)}`,
    merged: (after) => `merged ${listed(after.from) || 'another item'} into {title}`,
    'merged away': (after) => `merged {title} into ${text(after.into)}`,
    'meant as it is': 'noted that {title} stands beside its copies on purpose',
    'chosen on the bench': (after) => `chose {title}${judgement(after)}`,
    'judged on the bench': (after) => `judged {title}${judgement(after)}`,
    'reference bound': (after) => `said that “${text(after.name)}” means ${text(after.title)} in {title}`,
    'reference written anew': (after, before) =>
      `wrote {title} anew, which calls ${text(after.name)}, called ${text(before.name)} before`,
    matched: (after) => `made {title}, by which ${text(after.from)} looks like ${text(after.to)}`,
    'read from a chart': (after) => `made {title} of a chart that went through ${text(after.editor)}`,
    converted: (after) => `converted a preset into {title}, with ${text(after.size)} points`,
    'written for an editor': (after) => `wrote {title} as a preset of ${text(after.editor)}`,
    'made as a companion': (after) => `made {title}, which calls ${text(after.look)} at ${text(after.strength)} %`,
    'trim forgotten': 'forgot the trim that was kept with {title}',
    'kept from the bench': (after) => `kept a column of the bench as {title}, ${counted(after.layers, 'layer')}`,
    'made in another form': 'made {title} from another item',
    'title written into the file': 'wrote its title and headings into the file of {title}',
  },
  shelf: {
    made: 'made the shelf {title}',
    renamed: 'renamed the shelf {title}',
    'taken away': (_, before) => `removed the shelf ${text(before.name)}`,
    'shelves ordered': 'put the shelves in another order',
    ordered: (after) => `moved ${counted(after.items, 'item')} on {title}`,
    'ordered by headings': 'put {title} in the order of its headings',
  },
  rollout: {
    begun: 'began to plan the rollout {title}',
    'begun again': 'had the rollout {title} planned again',
    planned: (after) => `worked out the plan of {title}: ${counted(after.steps, 'file')}`,
    confirmed: (after) =>
      `confirmed the rollout {title}${after.beyond ? `, with ${counted(after.beyond, 'file')} further off than the studio takes` : ''}${after.at ? `, to begin on ${text(after.at).slice(0, 16).replace('T', ' at ')} UTC` : ''}`,
    reported: (after) =>
      `carried out ${counted(after.operations, 'file')} of {title}${after.bad ? `, of which ${text(after.bad)} could not be done` : ''}`,
    done: 'finished the rollout {title}',
    'done by hand': (after) =>
      `said that {title} was carried out by hand at ${text(after.station)}, ${counted(after.operations, 'file')}`,
    'left out': (after) => `left ${text(after.station)} out of {title}, ${counted(after.operations, 'file')}`,
    paused: 'halted the rollout {title}',
    resumed: 'went on with the rollout {title}',
    verified: ({ station }) =>
      `let the rollout {title} go to the rest of its stations, since all of it is listed at ${text(station)}`,
    'begun early': 'let the rollout {title} begin before its time',
    'rest let go': 'let the rollout {title} go to the rest of its stations',
    stopped: 'stopped the rollout {title}, and left out what waited',
    dropped: 'dropped the plan {title}',
    'undo begun': 'began to undo the rollout {title}',
    undone: 'finished undoing the rollout {title}',
  },
  station: {
    added: 'added the station {title}',
    renamed: 'changed the station {title}',
    retired: 'retired the station {title}',
    'brought back': 'brought the station {title} back',
    grouped: ({ groups }) => (groups ? `put {title} into ${text(groups)}` : 'took {title} out of its groups'),
    'editors changed': (after) =>
      `changed the editors of {title}: ${[
        after.added ? `${text(after.added)} came` : '',
        after.gone ? `${text(after.gone)} went` : '',
        after.left
          ? `${counted(after.left, 'file')} of ours there ${after.left === 1 ? 'is' : 'are'} no longer looked after`
          : '',
      ]
        .filter(Boolean)
        .join(', ')}`,
    'pictures asked for': (after) =>
      `asked the editors at {title} for pictures with ${counted(after.items, 'item')} on`,
    'seen working': (after) => `saw ${text(after.item)} work in ${text(after.editor)} at {title}`,
    'seen otherwise': (after) =>
      `found that ${text(after.item)} does something else in ${text(after.editor)} at {title}`,
    'not seen': (after) => `could not tell whether ${text(after.item)} works in ${text(after.editor)} at {title}`,
    'cameras changed': (after) =>
      `changed the cameras used at {title}: ${[
        after.added ? `${text(after.added)} came` : '',
        after.gone ? `${text(after.gone)} went` : '',
      ]
        .filter(Boolean)
        .join(', ')}`,
    'theirs kept': (after) =>
      `let ${counted(after.files, 'file')} of ours at {title} be as somebody there made ${after.files === 1 ? 'it' : 'them'}`,
    ignored: (after) => `wants to hear no more of ${counted(after.files, 'file')} at {title}`,
    'told again': (after) => `wants to hear again of ${counted(after.files, 'file')} at {title}`,
    'code made': 'made a code to enrol the agent of {title}',
    enrolled: 'began to look after {title}',
    'shown there': (after) => `showed ${text(after.path)} in the file manager of {title}`,
    'not shown there': (after) => `could not show ${text(after.path)} at {title}: ${text(after.fault)}`,
    'carried file made': (after) =>
      `made a file to be carried to {title}, with ${after.operations ? counted(after.operations, 'operation') : 'nothing to carry out'}`,
    'answer brought': (after) =>
      `brought the answer of {title}${after.operations ? `, with what became of ${counted(after.operations, 'operation')}` : ''}`,
    'token revoked': 'revoked the token of {title}',
    'two agents': 'was told of a second agent with the same token at {title}',
    'files changed': (after) => `found ${counted(after.files, 'changed file')} at {title}`,
    'editors found': (after) => `found ${counted(after.editors, 'editor')} on the machine of {title}`,
    'editor reports': (after) => `found that ${text(after.editor)} lists ${counted(after.listed, 'item')} at {title}`,
    'editor quit': (after) => `found that ${text(after.editor)} was closed at {title}`,
  },
  order: {
    made: 'made the standing order {title}',
    changed: 'changed the standing order {title}',
    removed: 'removed the standing order {title}',
  },
  frame: {
    made: 'added the frame {title}',
    changed: 'changed the frame {title}',
    archived: 'put the frame {title} away',
    'brought back': 'brought the frame {title} back',
    'target placed': 'said where the target lies on {title}',
    'target taken off': 'took the target off {title}',
    'export brought in': (after) => `brought in what ${text(after.label) || 'an editor'} made of {title}`,
    'export removed': (_, before) => `removed what ${text(before.label) || 'an editor'} made of {title}`,
  },
  'frame-set': { made: 'made the frame set {title}', changed: 'changed the frame set {title}' },
  bench: {
    made: 'kept the bench {title}',
    changed: 'changed the bench {title}',
    removed: 'removed the bench {title}',
  },
  conversion: {
    begun: (after) => `began to plan the conversion {title}, ${counted(after.rows, 'item')}`,
    changed: 'changed the plan of the conversion {title}',
    planned: (after) =>
      `worked out the plan of {title}${after.refused ? `: ${counted(after.refused, 'item')} cannot be made` : ''}`,
    started: (after) => `started the conversion {title}, ${counted(after.rows, 'item')}`,
    paused: 'paused the conversion {title}',
    stopped: 'stopped the conversion {title}',
    dropped: (after) => `dropped the plan of the conversion ${text(after.title)}`,
    done: (after) =>
      `finished the conversion {title}: ${counted(after.made, 'item')} made${after.failed ? `, ${text(after.failed)} failed` : ''}`,
  },
  'house-choice': {
    made: (after) => `made a house choice: ${choiceCase(after)}`,
    changed: (after) => `changed the house choice: ${choiceCase(after)}`,
    removed: 'removed a house choice',
  },
  chart: {
    'measured values brought in': (after) =>
      `brought in the measured values of {title}, ${counted(after.patches, 'patch', 'patches')}`,
    'laid out': 'said how the patches of a target are laid out',
  },
  'editor-chart': {
    made: (after) => `made a chart for ${text(after.editor)}: ${text(after.what)}`,
    read: (after) => `read the chart {title} from ${text(after.file)}`,
    'reading taken off': (_, before) => `took the reading of ${text(before.file)} off the chart {title}`,
    'given up': (_, before) => `gave up the chart for ${text(before.editor)}: ${text(before.what)}`,
  },
  licence: { made: 'noted the licence {title}', changed: 'changed the licence {title}' },
  pack: { described: 'changed what is noted of the pack {title}' },
  camera: {
    listed: 'listed the camera {title}',
    changed: 'changed the camera {title}',
    'taken off the list': 'took the camera {title} off the list',
  },
  lens: {
    listed: 'listed the lens {title}',
    changed: 'changed the lens {title}',
    'taken off the list': 'took the lens {title} off the list',
  },
  request: {
    'asked for': (after) =>
      `asked${when(after['asked of'], (whom) => ` ${whom}`)} for a ${text(after.wanted)} for {title}`,
    noted: 'changed the note of what was asked for {title}',
    sent: wanted('sent'),
    promised: wanted('promised'),
    fulfilled: wanted('fulfilled'),
    declined: wanted('declined'),
  },
  editor: {
    proposed: 'proposed a descriptor of {title}',
    declined: 'declined the proposed descriptor of {title}',
    'taken back': 'took the proposed descriptor of {title} back',
    described: 'took over a descriptor of {title}',
    'read anew': (after) => `read ${counted(after.presets, 'preset')} of {title} anew`,
  },
  person: {
    added: 'added {title}',
    invited: 'invited {title}',
    'link made': 'made a link for {title} to set a password',
    joined: 'set a password and joined',
    'password set by a link': 'set a new password by a link',
    'role given': (after) => `gave {title} the role of ${text(after.role)}`,
    'session ended': 'signed out one of their sessions',
    'password changed': 'changed their password',
    activated: 'reactivated {title}',
    deactivated: 'deactivated {title}',
    'signed out everywhere': 'signed {title} out everywhere',
  },
  studio: {
    'backup taken': 'took a backup',
    restored: 'restored the studio from a backup',
    dropped: 'dropped a studio that a restore had put aside',
    collected: 'removed contents that nothing refers to any more',
    hidden: 'hid the first steps',
    shown: 'brought the first steps back',
    'opening rules': (after) => `set the studio’s opening rules: ${counted(Number(after.rules), 'rule')}`,
    'set what counts as a copy': 'set what counts as a copy',
    'set who confirms a rollout': ({ another }) =>
      another ? 'set that another person confirms a rollout' : 'set that whoever plans a rollout may confirm it',
    'set how far off a table may be': (after) =>
      `set how far off a table may be: ${text(after.mean)} ΔE00 on average, ${text(after.max)} at most`,
  },
  job: {
    queued: 'put a job in line',
    running: 'began a job',
    done: 'finished a job',
    failed: 'could not finish a job',
    cancelled: 'stopped a job',
  },
} as const satisfies Record<string, Record<string, Sentence>>;

export type Subject = keyof typeof sentences;
export type ActionOf<S extends Subject> = keyof (typeof sentences)[S] & string;

/** Events of which the fields that were changed say more than the sentence does. */
const FIELDS_TELL: readonly string[] = [
  'item renamed',
  'item described',
  'item encoding confirmed',
  'shelf renamed',
  'station renamed',
  'frame changed',
  'licence changed',
  'pack described',
  'camera changed',
  'lens changed',
  'request noted',
  'studio set what counts as a copy',
];

interface EventSaid {
  subject: string;
  action: string;
  before: Said | null;
  after: Said | null;
}

export interface Told {
  /** before the name of the subject, and after it; without a name, all of it stands before */ start: string;
  end: string;
  /** whether the subject is named between them */ named: boolean;
  /** whether the fields that were changed are told too */ fields: boolean;
}

const nothing: Said = {};

/** The sentence of an event, in two parts about its subject's name. One of an older release, without a sentence, is told as it is. */
export function tell({ subject, action, before, after }: EventSaid): Told {
  const ofSubject: Readonly<Record<string, Sentence>> | undefined = Object.hasOwn(sentences, subject)
    ? sentences[subject as Subject]
    : undefined;
  const sentence = ofSubject && Object.hasOwn(ofSubject, action) ? ofSubject[action] : `${action}: {title}`;
  const words = typeof sentence === 'function' ? sentence(after ?? nothing, before ?? nothing) : (sentence ?? action);
  const [start = '', end] = words.split('{title}');
  return {
    start,
    end: end ?? '',
    named: end !== undefined,
    fields: FIELDS_TELL.includes(`${subject} ${action}`),
  };
}

const actors: ReadonlyMap<string, string> = new Map([
  ['', 'Etagere'],
  ['worker', 'Etagere'],
  ['set-up', 'Etagere'],
  ['first person', 'The first person'],
]);

/** Who did it, as a sentence begins. */
export const actorWords = (actor: string): string =>
  actors.get(actor) ?? actor.replace(/^agent of /, 'The agent of ').replace(/^agent$/, 'An agent');
