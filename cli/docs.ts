/** Pages of docs/ that are written from the code. */
import { documentation as settings } from '@/core/preset/settings';
import { documentation as threeWay } from '@/core/sync/three-way';
import { verb, type Verb } from './verb';

const page = (name: string, about: string, write: () => string): Verb =>
  verb({ about, example: `docs ${name} > docs/${name}.md`, run: async () => write() });

export const verbs: Record<string, Verb> = {
  settings: page('settings', 'docs/common-settings.md', settings),
  'three-way': page('three-way', 'docs/three-way.md', threeWay),
};
