/** Documents name files; a name that leads nowhere is worse than none. */
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { expect, test } from 'vitest';

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
  const paths = [...text.matchAll(named)].map((match) => match[1]!.replace(/…/g, ''));
  const links = [...text.matchAll(linked)]
    .map((match) => match[1]!)
    .filter((link) => !link.includes('://'))
    .map((link) => join(dirname(document), link));
  expect([...paths, ...links].filter((path) => !existsSync(path))).toEqual([]);
});

test('there are documents', () => expect(documents.length).toBeGreaterThan(15));
