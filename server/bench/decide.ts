/** What is decided on the bench: verdicts, and what follows from them; house choices. */
import type { InferType } from 'yup';
import { benchEndpoints } from '@/core/api/bench';
import { isProvisional } from '@/core/bench/display';
import { STAGES } from '@/core/camera/stages';
import { bodyOf } from '@/core/frame/body';
import { Problem } from '@/core/problem';
import { isUuid } from '@/core/uuid';
import { pool, transaction, type Sql } from '../db/pool';
import { record } from '../activity/queries';
import { setRibbon } from '../items/service';
import { actorOf, allow, type Person } from '../people/roles';
import { checked } from '../input';
import { referencesOf } from '../references/queries';
import * as q from './queries';

export type { ChoiceRow, VerdictRow } from './queries';

export type Decision = InferType<(typeof benchEndpoints)['POST /api/bench/verdict']['body']>;

/** The candidates that are decided on: a profile, a look, or both. */
async function decidedOn(sql: Sql, { profile, look, choice }: Decision): Promise<q.CandidateRow[]> {
  const versions = [profile, look].filter((one) => one !== null);
  const candidates = await q.candidates(sql, versions.filter(isUuid));
  const about = versions.flatMap((version) => candidates.find((one) => one.version_id === version) ?? []);
  if (about.length < versions.length)
    throw new Problem(
      'not-found',
      'What was chosen is not there any more.',
      look ?? profile ?? '',
      'Reload the bench.',
    );
  const draft = about.find((candidate) => candidate.status !== 'approved');
  if (choice && draft)
    throw new Problem(
      'choice-draft',
      `${draft.title} is ${draft.status}: a house choice needs an approved version.`,
      draft.title,
      'Have it approved first; the verdict can be given now.',
    );
  return about;
}

const isProfile = (candidate: q.CandidateRow): boolean => candidate.kind === 'camera-profile';

type JudgedFrame = NonNullable<Awaited<ReturnType<typeof q.frameForVerdict>>>;

/** The house choice that a frame makes: for its case, as wide as it was asked for; null where it makes none. */
function choiceBy(decision: Decision, frame: JudgedFrame, personId: string): q.NewChoice | null {
  const { choice, look, strength } = decision;
  if (!choice) return null;
  // a profile develops camera data; for rendered files it is chosen only along with everything else
  const profile = frame.file_kind === 'camera data' || choice.anyKind ? decision.profile : null;
  if (!profile && !look) return null;
  return {
    client: choice.client,
    camera: choice.anyCamera ? '' : bodyOf(frame),
    light: choice.anyLight ? '' : frame.light,
    fileKind: choice.anyKind ? '' : frame.file_kind,
    profile,
    look,
    strength,
    personId,
  };
}

const caseOf = ({ client, camera, light, fileKind }: q.NewChoice): string =>
  [client, camera, light, fileKind].join('\n').toLowerCase();

interface Judging {
  sql: Sql;
  person: Person;
  decision: Decision;
  about: q.CandidateRow[];
  provisional: boolean;
}

async function addVerdicts(
  { sql, person, decision, about, provisional }: Judging,
  frameId: string,
  frame: JudgedFrame,
) {
  for (const candidate of about)
    await q.insertVerdict(sql, {
      itemId: candidate.item_id,
      versionId: candidate.version_id,
      frameId,
      camera: bodyOf(frame),
      light: frame.light,
      strength: isProfile(candidate) ? 100 : decision.strength,
      stages: isProfile(candidate) ? (decision.stages ?? [...STAGES]) : null,
      beside: decision.beside,
      words: decision.words,
      chosen: decision.chosen,
      blind: decision.blind,
      asMeant: decision.asMeant,
      display: decision.display,
      provisional,
      personId: person.id,
    });
}

/** A profile becomes a house choice only once it was seen on a frame of its camera. */
function refuseUnseen({ decision, about }: Judging, cameras: ReadonlySet<string>): void {
  const profile = decision.choice && about.find(isProfile);
  if (!profile?.cameras.length || profile.cameras.some((camera) => cameras.has(camera))) return;
  throw new Problem(
    'choice-camera',
    `${profile.title} was seen on no frame of the ${profile.cameras.join(' or ')}: it cannot become a house choice yet.`,
    profile.title,
    'Put a frame of that camera on the bench and judge there; the verdict on these can be given now.',
  );
}

async function saveChoice({ sql, person }: Judging, choice: q.NewChoice): Promise<void> {
  const saved = await q.putChoice(sql, choice);
  const { client, camera, light, look, profile, strength } = choice;
  const action = saved.before ? 'changed' : 'made';
  const after = { client, camera, light, look, profile, strength };
  await record(sql, actorOf(person), 'house-choice', String(saved.id), action, saved.before, after);
}

/** What follows for an item: the event, its usual strength, and the trim that is kept with it; with the profile, where there is one. */
async function followUp({ sql, person, decision, about }: Judging, candidate: q.CandidateRow): Promise<void> {
  const { item_id: itemId } = candidate;
  const action = decision.chosen ? 'chosen on the bench' : 'judged on the bench';
  await record(sql, actorOf(person), 'item', itemId, action, null, {
    frames: decision.frames.length,
    strength: decision.strength,
    words: decision.words.slice(0, 200),
  });
  if (decision.advise && !isProfile(candidate)) {
    allow(person, 'item.edit');
    await q.adviseStrength(sql, itemId, decision.strength);
  }
  if (decision.compensation && (isProfile(candidate) || !about.some(isProfile))) {
    allow(person, 'item.edit');
    await q.setCompensation(sql, itemId, decision.compensation);
  }
}

async function judgeFrames(judging: Judging): Promise<{ verdicts: number; choices: number }> {
  const { sql, person, decision, about } = judging;
  const choices = new Map<string, q.NewChoice>();
  const cameras = new Set<string>();
  let verdicts = 0;
  for (const id of decision.frames.filter(isUuid)) {
    const frame = await q.frameForVerdict(sql, id);
    if (!frame) continue;
    cameras.add(frame.camera).add(bodyOf(frame));
    await addVerdicts(judging, id, frame);
    verdicts += about.length;
    const choice = choiceBy(decision, frame, person.id);
    if (choice) choices.set(caseOf(choice), choice);
  }
  if (!verdicts) throw new Problem('nothing-chosen', 'No frame is there to judge on.', 'the rows', 'Add a frame.');
  refuseUnseen(judging, cameras);
  for (const choice of choices.values()) await saveChoice(judging, choice);
  return { verdicts, choices: choices.size };
}

/**
 * Verdicts on each frame, and with them what else follows: ribbon, advised strength, compensation, the house choice for each
 * case that the frames make.
 */
export async function decide(
  person: Person,
  input: unknown,
): Promise<{ verdicts: number; choices: number; provisional: boolean }> {
  allow(person, 'verdict.give');
  const decision = checked(benchEndpoints['POST /api/bench/verdict'].body, input);
  if (decision.choice) allow(person, 'choice.make');
  if (!decision.profile && !decision.look)
    throw new Problem(
      'nothing-chosen',
      'No look and no profile is chosen.',
      'the column',
      'Choose a column with a candidate.',
    );
  const provisional = isProvisional(decision.display, Date.now());
  const { items, ...made } = await transaction(async (sql) => {
    const about = await decidedOn(sql, decision);
    const judging = { sql, person, decision, about, provisional };
    const counts = await judgeFrames(judging);
    for (const candidate of about) await followUp(judging, candidate);
    return { ...counts, items: about.map((candidate) => candidate.item_id) };
  });
  if (decision.ribbon) for (const id of items) await setRibbon(person, id, { on: true, whose: 'mine' });
  return { ...made, provisional };
}

export async function verdictsOf(person: Person, itemId: string): Promise<q.VerdictRow[]> {
  allow(person, 'view');
  return q.verdictsOf(pool(), itemId);
}
/** A house choice; `doubled`: its preset calls this look, which was made from it, so that the effect acts twice. */
export interface ListedChoice extends q.ChoiceRow {
  doubled: { id: string; title: string } | null;
}

export async function listChoices(person: Person): Promise<ListedChoice[]> {
  allow(person, 'view');
  const choices = await q.choices(pool());
  const looks = choices.flatMap(({ look_version }) => look_version ?? []);
  const twice = (await referencesOf(pool(), looks)).filter((one) => one.twice);
  return choices.map((choice) => {
    const called = twice.find(({ version_id }) => version_id === choice.look_version);
    return { ...choice, doubled: called?.item_id ? { id: called.item_id, title: called.title ?? '' } : null };
  });
}
export async function removeChoice(person: Person, id: number): Promise<void> {
  allow(person, 'choice.make');
  await transaction(async (sql) => {
    if (!(await q.removeChoice(sql, id)))
      throw new Problem('not-found', 'There is no such house choice.', String(id), 'Reload the page.');
    await record(sql, actorOf(person), 'house-choice', String(id), 'removed', null, null);
  });
}
