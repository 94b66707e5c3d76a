/**
 * Opening rules: what editors do with a photo that they open changes every comparison. The studio has one list; each
 * editor at each station has its own, which is read, compared, and merged three ways by a rollout.
 */
import type { BodyOf } from '@/core/api';
import { openingEndpoints } from '@/core/api/opening';
import type { Opening } from '@/core/opening/descriptor';
import { readOwnRules, toCommon, writeOwnRules } from '@/core/opening/file';
import { mergeRules, type MergedRow, type MergedRules } from '@/core/opening/merge';
import { keyOfWhen, tidy, whenWords, type Rule } from '@/core/opening/rule';
import { distinct } from '@/core/lists';
import { Problem } from '@/core/problem';
import { resolveTemplate } from '@/core/sync/place-templates';
import { counted } from '@/core/words';
import { record } from '../activity/queries';
import { pool, transaction, type Sql } from '../db/pool';
import { planLists, type ListWrite } from '../editor-lists/rollout';
import { editorsThere, hindrance, isAt, type EditorThere } from '../editor-lists/there';
import { checked } from '../input';
import { actorOf, allow, type Person } from '../people/roles';
import { doubleInRules, type DoubleInRule, type NamingRule } from './double';
import * as q from './queries';

/** One editor's list at one station. */
export interface RulesThere extends EditorThere {
  opening: Opening;
  path: string;
}

export async function listsAt(sql: Sql, ids: readonly string[] | null): Promise<RulesThere[]> {
  return (await editorsThere(sql, ids)).flatMap((there) => {
    const { opening } = there.descriptor;
    const template = opening?.list[there.agent.system];
    return opening && template ? [{ ...there, opening, path: resolveTemplate(template, there.agent.system) }] : [];
  });
}

type Merging = { merged: MergedRules } | { reason: string };

function merging(there: RulesThere, ours: readonly Rule[], insist = false): Merging {
  const reason = hindrance(there, there.path);
  if (reason) return { reason };
  try {
    const theirs = readOwnRules(there.opening, there.path, there.textAt(there.path) ?? '');
    return { merged: mergeRules(there.opening, there.baseAt(there.path) as Rule[], ours, theirs, insist) };
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    return { reason: error.message };
  }
}

export interface OpeningView {
  station: { id: string; name: string };
  editor: { id: string; version: string; title: string };
  path: string;
  state: 'in-step' | 'update-due' | 'unread';
  /** why it could not be read */ reason: string;
  rows: MergedRow[];
  cannot: MergedRules['cannot'];
  theirOrder: boolean;
}

const headOf = ({ station, descriptor, path }: RulesThere) => ({
  station: { id: station.id, name: station.name },
  editor: { id: descriptor.editor, version: descriptor.version, title: descriptor.title },
  path,
});

function viewOf(there: RulesThere, one: Merging): OpeningView {
  if ('reason' in one)
    return { ...headOf(there), state: 'unread', reason: one.reason, rows: [], cannot: [], theirOrder: false };
  const { due, rows, cannot, order } = one.merged;
  return {
    ...headOf(there),
    state: due ? 'update-due' : 'in-step',
    reason: '',
    rows,
    cannot,
    theirOrder: order === 'theirs',
  };
}

export interface OpeningFor {
  rules: Rule[];
  revision: number;
  lists: OpeningView[];
  /** rules that begin a photo with one effect twice */ doubles: DoubleInRule[];
}

/** Rules of lists that name a preset, as they will be there. */
const namingAt = ({ station, editor, rows }: OpeningView): NamingRule[] =>
  rows.flatMap(({ words, mark, cells }) =>
    cells.preset?.will && mark === 'theirs'
      ? [
          {
            words: `${words}, ${editor.title} at ${station.name}`,
            preset: cells.preset.will,
            look: cells.look?.will ?? '',
          },
        ]
      : [],
  );
const namingOf = (rules: readonly Rule[]): NamingRule[] =>
  rules.flatMap(({ when, start: { preset, look } }) =>
    preset ? [{ words: whenWords(when), preset, look: look ?? '' }] : [],
  );

/** The studio's rules, and beside them every editor's list at these stations, or at all. */
export async function openingFor(person: Person, stations: readonly string[] | null = null): Promise<OpeningFor> {
  allow(person, 'view');
  const { rules, revision } = await q.studioRules(pool());
  const lists = (await listsAt(pool(), stations)).map((there) => viewOf(there, merging(there, rules)));
  const doubles = await doubleInRules(pool(), [...namingOf(rules), ...lists.flatMap(namingAt)]);
  return { rules, revision, lists, doubles };
}

function refuseTwice(rules: readonly Rule[]): void {
  const keys = rules.map(({ when }) => keyOfWhen(when));
  const twice = rules.find((_, n) => keys.indexOf(keys[n] ?? '') !== n);
  if (twice)
    throw new Problem(
      'rule-twice',
      `Two rules are for ${whenWords(twice.when)}: the first is always taken, and the other never.`,
      'rules',
      'Make them one, or say when each of them holds.',
    );
}

async function keepRules(sql: Sql, person: Person, before: readonly Rule[], rules: Rule[]): Promise<void> {
  await q.setStudioRules(sql, rules);
  const [was, is] = [before, rules].map(({ length }) => ({ rules: length }));
  await record(sql, actorOf(person), 'studio', 'opening', 'opening rules', was ?? null, is ?? null);
}

/** Sets the studio's rules, all at once; of two who change them at the same time the second is told. */
export async function setOpening(person: Person, input: BodyOf<'PUT /api/opening'>): Promise<void> {
  allow(person, 'opening.set');
  const { revision, rules: given } = checked(openingEndpoints['PUT /api/opening'].body, input);
  const rules = given.map((rule) => tidy(rule as Rule));
  refuseTwice(rules);
  await transaction(async (sql) => {
    const before = await q.studioRules(sql, true);
    if (before.revision !== revision)
      throw new Problem(
        'edited-meanwhile',
        'Somebody else has changed the opening rules meanwhile.',
        'rules',
        'Reload the page, and change them again.',
      );
    await keepRules(sql, person, before.rules, rules);
  });
}

/** What a step does to a list, in words. */
function noteOf({ rows, cannot }: MergedRules): string {
  const named = (mark: MergedRow['mark']): string[] =>
    rows.filter((row) => row.mark === mark).map(({ words }) => words);
  const changed = rows.filter(
    ({ mark, cells }) => mark === 'both' && Object.values(cells).some(({ is, will }) => is !== will),
  );
  const said = (words: string, what: readonly string[]): string => (what.length ? `${words} ${what.join('; ')}` : '');
  return [
    said('adds the rule for', named('ours')),
    said(
      'changes the rule for',
      changed.map(({ words }) => words),
    ),
    said('takes out the rule for', named('removed')),
    named('theirs').length ? `keeps ${counted(named('theirs').length, 'rule')} of their own` : '',
    cannot.length ? `leaves out what it has no words for: ${cannot.flatMap(({ what }) => what).join(', ')}` : '',
  ]
    .filter(Boolean)
    .join('; ');
}

/** Plans that these lists get the studio's rules. Throws where nothing is to be written. */
export async function planOpening(
  person: Person,
  input: BodyOf<'POST /api/opening/plan'>,
): Promise<{ rollout: string }> {
  allow(person, 'rollout.plan');
  const { places, insist } = checked(openingEndpoints['POST /api/opening/plan'].body, input);
  return transaction(async (sql) => {
    const { rules } = await q.studioRules(sql);
    const lists = (await listsAt(sql, distinct(places.map(({ station }) => station)))).filter((there) =>
      places.some(isAt(there)),
    );
    const writes = lists.flatMap((there): ListWrite[] => {
      const one = merging(there, rules, insist);
      if (!('merged' in one) || !one.merged.due) return [];
      const bytes = writeOwnRules(there.opening, one.merged.rules, there.textAt(there.path) ?? '');
      return [{ there, path: there.path, bytes, asked: rules, note: noteOf(one.merged) }];
    });
    if (!writes.length)
      throw new Problem(
        'opening-nothing',
        'None of these lists is to be written: each has the studio’s rules, or cannot be read.',
        'opening rules',
        'Reload the page; it says of each list how it stands.',
      );
    return { rollout: await planLists(sql, person, 'opening rules', writes) };
  });
}

/** A rule that an editor there has, and the studio does not, becomes the studio's last. */
export async function takeRule(person: Person, input: BodyOf<'POST /api/opening/take'>): Promise<void> {
  allow(person, 'opening.set');
  const { rule: words, ...place } = checked(openingEndpoints['POST /api/opening/take'].body, input);
  await transaction(async (sql) => {
    const { rules } = await q.studioRules(sql, true);
    const [there] = (await listsAt(sql, [place.station])).filter((one) => isAt(one)(place));
    const own = there ? readOwnRules(there.opening, there.path, there.textAt(there.path) ?? '').rules : [];
    const found = own
      .flatMap((one) => (there ? [toCommon(there.opening, one)] : []))
      .find(({ rule, isWhole }) => isWhole && whenWords(rule.when) === words)?.rule;
    if (!found || !Object.keys(found.start).length)
      throw new Problem(
        'not-found',
        'That rule is not there any more, or says nothing that is known here.',
        words,
        'Reload the page.',
      );
    refuseTwice([...rules, found]);
    await keepRules(sql, person, rules, [...rules, found]);
  });
}

/** Names that a rule may speak of, to be offered: the studio's cameras by their bodies, and its approved profiles. */
export async function namesForRules(person: Person): Promise<{ cameras: string[]; profiles: string[] }> {
  allow(person, 'view');
  return { cameras: await q.cameraNames(pool()), profiles: await q.profileTitles(pool()) };
}
