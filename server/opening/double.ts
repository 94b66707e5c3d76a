/** Opening rules that begin a photo with a preset and with the look that was made from it: the effect counts twice. */
import type { Sql } from '../db/pool';
import { madeOfPresets, referencesOf } from '../references/queries';
import * as q from './queries';

/** A rule, as far as it names what acts on a photo. */
export interface NamingRule {
  /** where the rule stands, and which photos it is for */ words: string;
  preset: string;
  /** "" where it names none */ look: string;
}
export interface DoubleInRule {
  words: string;
  preset: string;
  look: { id: string; title: string };
  /** the preset calls the look itself; else the rule names both */ calls: boolean;
}

const same = (one: string, other: string): boolean => one.toLowerCase() === other.toLowerCase();

/** Which of these rules have an effect twice, by the items that bear the names in them. */
export async function doubleInRules(sql: Sql, rules: readonly NamingRule[]): Promise<DoubleInRule[]> {
  if (!rules.length) return [];
  const named = await q.versionsNamed(
    sql,
    rules.flatMap(({ preset, look }) => [preset, look]),
  );
  const byVersion = new Map(named.map((one) => [one.version, one]));
  const versions = named.map(({ version }) => version);
  const calling = (await referencesOf(sql, versions)).flatMap(({ version_id, twice, item_id, title }) =>
    twice && item_id && title ? [{ preset: byVersion.get(version_id)?.title ?? '', look: { id: item_id, title } }] : [],
  );
  const beside = (await madeOfPresets(sql, versions)).flatMap(({ look, preset }) => {
    const [made, source] = [byVersion.get(look), byVersion.get(preset)];
    return made && source ? [{ preset: source.title, look: { id: made.item, title: made.title } }] : [];
  });
  const found = rules.flatMap(({ words, preset, look }): DoubleInRule[] => [
    ...calling.filter((one) => same(one.preset, preset)).map((one) => ({ ...one, words, calls: true })),
    ...beside
      .filter((one) => same(one.preset, preset) && same(one.look.title, look))
      .map((one) => ({ ...one, words, calls: false })),
  ]);
  // several versions of one item say the same
  return [...new Map(found.map((one) => [[one.words, one.preset, one.look.id].join('\n'), one])).values()];
}
