/** Documents name files; a name that leads nowhere is worse than none. */
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { expect, test } from 'vitest';
import { must } from '@/core/must';

const rooms = 'core|server|ui|app|processes|browser-workers|agent|standins|demo|tools|benchmarks|db|cli|kernel|e2e|bin';
const named = new RegExp(`\`((?:${rooms})/[A-Za-z0-9/._()[\\]-]*)\``, 'g');
const linked = /\]\(([^)#]+)(?:#[^)]*)?\)/g;

const documents = [
  'README.md',
  'CONTRIBUTING.md',
  ...readdirSync('docs', { recursive: true })
    .map((name) => join('docs', String(name)))
    .filter((name) => name.endsWith('.md')),
];

test.each(documents)('what %s names and links to is there', (document) => {
  const text = readFileSync(document, 'utf8');
  const paths = [...text.matchAll(named)].map((match) => must(match[1]).replace(/…/g, ''));
  const links = [...text.matchAll(linked)]
    .map((match) => must(match[1]))
    .filter((link) => !link.includes('://'))
    .map((link) => join(dirname(document), link));
  expect([...paths, ...links].filter((path) => !existsSync(path))).toEqual([]);
});

test('there are documents', () => expect(documents.length).toBeGreaterThan(15));

/** Source files of a room, without tests and what only they need. */
const sourcesOf = (room: string): string[] =>
  readdirSync(room, { recursive: true })
    .map((name) => join(room, String(name)))
    .filter((name) => /\.tsx?$/.test(name) && !/\.(test|fixture)\.|testing/.test(name));

/** Which rooms a file imports from, its own left out. */
function roomsKnownBy(file: string): string[] {
  const imports = [...readFileSync(file, 'utf8').matchAll(/(?:from|import)\s*\(?'((?:@\/|\.)[^']+)'/g)];
  return imports
    .map((match) => must(match[1]))
    .map((to) => (to.startsWith('@/') ? to.slice(2) : join(dirname(file), to)))
    .map((path) => must(path.split('/')[0]))
    .filter((room) => room !== file.split('/')[0]);
}

test('the picture of the rooms is what the imports are', () => {
  const document = readFileSync('docs/architecture.md', 'utf8');
  const picture = must(/```mermaid\n([\s\S]*?)```/.exec(document)?.[1]);
  const drawn = [...picture.matchAll(/^ {2}(\S+) --> (\S+)$/gm)].map(([, from, to]) => `${from} to ${to}`);
  const rooms = 'core server ui app processes browser-workers agent standins demo cli benchmarks'.split(' ');
  const real = rooms.flatMap((room) =>
    sourcesOf(room).flatMap((file) => roomsKnownBy(file).map((known) => `${room} to ${known}`)),
  );
  expect(drawn.sort()).toEqual([...new Set(real)].sort());
});
