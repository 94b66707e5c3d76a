import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { must } from '../must';
import { checklistOf, curesOf, type ThingToCheck } from './checklist';
import { parseDescriptor, type Descriptor } from './descriptor';

const standIn = (name: string): Descriptor =>
  parseDescriptor(JSON.parse(readFileSync(`standins/descriptors/${name}.json`, 'utf8')));
const card = standIn('perrin-alder-1');
const marlstone = standIn('marlstone-4');
const oxbow = standIn('oxbow-2');

const plain = { primaries: 'sRGB', transfer: 'sRGB', range: 'full' } as const;
const look = (over: Partial<ThingToCheck> = {}): ThingToCheck => ({
  id: over.title ?? 'a',
  title: 'Velour',
  kind: 'look',
  format: 'cube',
  status: 'approved',
  input: null,
  result: null,
  cameras: [],
  iccClass: null,
  points: 33,
  encoding: { is: plain, assumed: false },
  ...over,
});
const checksOf = (descriptor: Descriptor, over: Partial<ThingToCheck> = {}) =>
  must(checklistOf(descriptor, [look(over)])[0]).checks;

describe('the checklist of a card', () => {
  it('passes a look that is what the card asks', () => {
    const answers = Object.values(checksOf(card)).map((answer) => answer?.is);
    expect(answers).toEqual(Array(8).fill('passed'));
  });

  it('tells what a rollout does on its way, with the file that could be made instead', () => {
    const { points, file, name } = checksOf(card, { points: 65, format: 'clf', title: 'Velour süß' });
    expect(points).toMatchObject({
      is: 'on-the-way',
      words: '65 become 33',
      cure: { does: 'convert', recipe: { tool: 'derive', form: 'cube', points: 33 } },
    });
    expect(file).toEqual({ is: 'on-the-way', words: 'is written as .cube' });
    expect(name).toMatchObject({ is: 'on-the-way', words: 'is called Velour_su.cube there' });
  });

  it('asks for what a person has to do: approve, say an encoding, give another name', () => {
    const { approval, encoding, name } = checksOf(card, {
      status: 'draft',
      encoding: { is: plain, assumed: true },
      title: 'A look with a very long name indeed',
    });
    expect(approval).toMatchObject({ is: 'to-change', cure: { does: 'approve' } });
    expect(encoding).toMatchObject({ is: 'to-change', cure: { does: 'confirm-encoding' } });
    expect(name).toMatchObject({ is: 'to-change', cure: { does: 'rename' } });
    expect(must(name).words).toMatch(/^is cut to A_look_with_a_very_lo/);
  });

  it('sees two names that become one there', () => {
    const [first, second] = checklistOf(card, [look({ title: 'Dusk 1' }), look({ title: 'Dusk_1' })]);
    expect(must(first).checks.name?.is).toBe('on-the-way');
    expect(must(second).checks.name).toMatchObject({ is: 'to-change', words: 'another is called Dusk_1.cube there' });
  });

  it('counts what the card takes, and no more', () => {
    const many = Array.from({ length: 26 }, (_, n) => look({ title: `Look ${n + 1}` }));
    const counts = checklistOf(card, many).map(({ checks }) => checks.count?.is);
    expect(counts.filter((is) => is === 'to-change')).toHaveLength(2);
    expect(counts.slice(24)).toEqual(['to-change', 'to-change']);
  });

  it('tells that limits of a scope are not kept there', () => {
    expect(checksOf(card, { input: 'camera data' }).scope).toMatchObject({
      is: 'to-change',
      cure: { does: 'open-scope' },
    });
    expect(checksOf(marlstone, { input: 'camera data' }).scope).toMatchObject({
      is: 'on-the-way',
      words: 'offered for camera data alone',
    });
  });

  it('says nothing more of what is not taken, and what would make it so', () => {
    const { kind, points } = checksOf(card, { kind: 'preset', format: 'oxbow@2', points: null, encoding: null });
    expect(points).toBeNull();
    expect(kind).toMatchObject({
      is: 'to-change',
      cure: { does: 'convert', recipe: { tool: 'bake', size: 33 } },
    });
    expect(checksOf(card, { kind: 'lens-database', points: null }).kind).not.toHaveProperty('cure');
  });
});

describe('the checklist of an editor', () => {
  it('offers presets of another language in its own', () => {
    const { kind } = checksOf(oxbow, { kind: 'preset', format: 'marlstone@4', points: null, encoding: null });
    expect(kind).toMatchObject({ cure: { recipe: { tool: 'preset', to: 'oxbow@2' } } });
  });

  it('tells into which encoding a table is written', () => {
    expect(checksOf(oxbow).encoding).toMatchObject({
      is: 'on-the-way',
      words: 'sRGB, sRGB, full becomes Rec. 2020, log, −9 to +4 EV',
    });
  });

  it('keeps a size within its rule, and brings others to it', () => {
    expect(checksOf(marlstone, { points: 48 }).points?.is).toBe('passed');
    expect(checksOf(marlstone, { points: 65 }).points).toMatchObject({ words: '65 become 33' });
    expect(checksOf(marlstone, { points: null }).points).toMatchObject({
      words: 'no 3D table: becomes one of 33 points',
    });
  });
});

describe('a camera profile in the checklist', () => {
  const profile = { kind: 'camera-profile', format: 'dcp', points: null, encoding: null, cameras: ['Perrin Alder'] };

  it('goes as it is to an editor that reads its form, for the camera that it names', () => {
    expect(checksOf(oxbow, profile)).toMatchObject({
      kind: { is: 'passed', words: 'as it is' },
      scope: { is: 'passed', words: 'for Perrin Alder' },
    });
  });

  it('has to name its camera, and one alone where that is its folder', () => {
    expect(checksOf(oxbow, { ...profile, cameras: [] }).kind).toMatchObject({
      is: 'to-change',
      words: 'Oxbow 2 asks for the camera that it is for, and none is named: name it in the item’s scope',
    });
    expect(checksOf(oxbow, { ...profile, cameras: ['A', 'B'] }).kind).toMatchObject({
      is: 'to-change',
      words: 'Oxbow 2 keeps it in the folder of one camera, and it is for 2: make a copy for each',
    });
  });

  it('becomes an ICC profile where those are read; of another class they are not', () => {
    expect(checksOf(marlstone, profile).kind).toMatchObject({
      words: 'Marlstone 4 reads camera profiles as ICC; this one is DCP',
      cure: { does: 'convert', recipe: { tool: 'derive', form: 'icc-input' } },
    });
    const icc = { ...profile, format: 'icc' };
    expect(checksOf(marlstone, { ...icc, iccClass: 'input' }).kind).toMatchObject({ is: 'passed' });
    expect(checksOf(marlstone, { ...icc, iccClass: 'display' }).kind).toMatchObject({
      is: 'to-change',
      words: 'Marlstone 4 takes ICC profiles of the class input; this one is display',
    });
  });
});

describe('cures', () => {
  it('are gathered by what is done, so that one button does it for all', () => {
    const cures = curesOf(
      checklistOf(card, [
        look({ title: 'One', points: 65 }),
        look({ title: 'Two', points: 17, status: 'draft' }),
        look({ title: 'Three', status: 'draft' }),
      ]),
    );
    expect(cures.map(({ check, things }) => [check, things.map(({ title }) => title)])).toEqual([
      ['approval', ['Two', 'Three']],
      ['points', ['One', 'Two']],
    ]);
  });
});
