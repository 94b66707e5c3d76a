/** The verbs of packs. */
import { inspectPack, type Inspected } from '@/server/arrivals/inspect';
import { openInput } from './files';
import { shipped } from './preset';
import { verb, type Verb } from './verb';

type Of<Type extends Inspected['type']> = Extract<Inspected, { type: Type }>;

const entryOf = ({ path, bytes, sha256, kind, title, headings, needs, note }: Of<'entry'>) => ({
  path,
  size: bytes.length,
  sha256: sha256.toString('hex'),
  kind,
  title,
  headings,
  needs,
  note,
});

const inspect = verb({
  about: 'what an archive holds, of every kind, what is refused and why',
  takes: '<zip...>',
  each: true,
  example: 'pack inspect stage-set.zip',
  run: async ({ files: [file = ''] }) => {
    openInput(file);
    const entries: ReturnType<typeof entryOf>[] = [];
    const refused: object[] = [];
    const ignored: object[] = [];
    for await (const inspected of inspectPack(file, shipped())) {
      if (inspected.type === 'entry') entries.push(entryOf(inspected));
      else if (inspected.type === 'refused') refused.push({ path: inspected.path, ...inspected.problem.toJSON() });
      else ignored.push({ path: inspected.path, why: inspected.why });
    }
    return { entries, refused, ignored };
  },
});

export const verbs: Record<string, Verb> = { inspect };
