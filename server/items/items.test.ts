import { must } from '@/core/must';
import { beforeAll, describe, expect, test } from 'vitest';
import { houseLooks } from '@/demo/designs';
import { cubeOf } from '@/demo/files';
import { putBlob } from '../blobs/service';
import { people, withDatabase } from '../db/testing/database';
import { pool, transaction } from '../db/pool';
import { actorOf } from '../people/roles';
import { addVersion, createItem } from './create';
import { freshCount, markSeen } from '../search/fresh';
import { page } from '../search/queries';
import { searchCounts, searchItems, searchShelves, type Search } from '../search/service';
import { sampler, selvedge, type Look } from '@/core/look';
import { itemFor, lookOf, noteView, setRibbon, renderingFor, versionFor } from './service';
import { confirmEncoding } from './encoding';
import perrinAlder from '@/standins/descriptors/perrin-alder-1.json';
import { bringDescriptor } from '../editors/service';
import { itemsCsv } from '../search/csv';
import { applyBulk, archiveItems, editItem, previewBulk, type EditConflict } from './edit';
import { addShelf, headingsOfShelf, moveItems, orderByHeadings, putAway } from '../shelves/service';
import { many } from '../db/query';

withDatabase();
let bench = '';
let other = '';
const make = (title: string, shelfId: string, headings: string[] = []) =>
  transaction(async (sql) =>
    createItem(sql, actorOf(people.librarian), {
      kind: 'look',
      title,
      headings,
      shelfId,
      supplier: '',
      sha: await putBlob(sql, Buffer.from(cubeOf(must(houseLooks[0]), 2))),
      fileName: `${title}.cube`,
      format: 'cube',
      facts: { kind: '3d', size: 2 },
      selvedge: null,
      notes: '',
    }),
  );
beforeAll(async () => {
  [bench, other] = [
    await addShelf(people.librarian, { name: 'Bench' }),
    await addShelf(people.librarian, { name: 'Other' }),
  ];
  for (let i = 1; i <= 30; i++) await make(`Plain ${String(i).padStart(2, '0')}`, bench);
  await make('Kiln Glaze Deep', other, ['Glazes', 'Tungsten']);
});

describe('the spines of a shelf', () => {
  test('the first of each shelf in order, and how many there are in all', async () => {
    const found = (await searchShelves(people.retoucher, {})).rows;
    const first = found.filter((s) => s.shelf_id === bench);
    expect(first).toHaveLength(24);
    expect(first.map((s) => s.title).slice(0, 3)).toEqual(['Plain 01', 'Plain 02', 'Plain 03']);
    expect(new Set(first.map((s) => s.matching))).toEqual(new Set([30]));
    expect(await searchItems(people.retoucher, { shelf: bench }).then((p) => p.rows)).toHaveLength(30);
  });
  test('found by title, heading, and with a slip of the finger only where nothing is spelled so', async () => {
    const titles = async (words: string) =>
      (await searchShelves(people.retoucher, { q: words })).rows.map((s) => s.title);
    expect(await titles('glaze')).toEqual(['Kiln Glaze Deep']);
    expect(await titles('tungsten')).toEqual(['Kiln Glaze Deep']);
    expect(await titles('kiln galze')).toEqual(['Kiln Glaze Deep']);
    expect(await titles('plain 07')).toEqual(['Plain 07']);
    expect(await titles('100%')).toEqual([]);
  });
  test('what bears the words as its title comes first, then in its title, its headings, anywhere', async () => {
    const shelf = await addShelf(people.librarian, { name: 'Found' });
    await make('Ochre infrared', shelf, ['Ground']);
    await make('A third', shelf, ['Ochre', 'Ground']);
    await make('Ground Ochreous', shelf);
    await make('Deep ground, ochre', other);
    await make('Öchre Ground', shelf);
    const found = async (search: Search) => (await searchShelves(people.retoucher, search)).rows.map((s) => s.title);
    expect(await found({ q: 'ochre ground' })).toEqual([
      'Öchre Ground',
      'Deep ground, ochre',
      'Ground Ochreous',
      'A third',
      'Ochre infrared',
    ]);
    const inOrder = (await searchItems(people.retoucher, { q: 'ochre ground', sort: 'title' })).rows;
    expect(inOrder[0]?.title).toBe('A third');
    const paged = [0, 2, 4].map((from) => searchItems(people.retoucher, { q: 'ochre ground' }, 2, from));
    expect((await Promise.all(paged)).flatMap(({ rows }) => rows.map((row) => row.title))).toEqual(
      await found({ q: 'ochre ground' }),
    );
  });
  test('of very much, what bears the words as its title is lifted, and no page shows it again', async () => {
    const shelf = await addShelf(people.librarian, { name: 'Very much' });
    for (const title of ['Ash a', 'Ash b', 'Ash', 'Ash c', 'Ash d']) await make(title, shelf);
    const wanted = {
      ...{ person: people.lead.id, query: 'ash:*', typed: 'Ash', start: '', alike: '', facets: [], ribbon: null },
      ...{ recent: false, fresh: false, shelf, folded: [], archived: false },
    };
    const pages = [0, 2, 4].map((from) => page(pool(), wanted, 'best', false, 2, from));
    const titles = (await Promise.all(pages)).map((rows) => rows.map((row) => row.title));
    expect(titles).toEqual([['Ash', 'Ash a'], ['Ash b', 'Ash c'], ['Ash d']]);
  });
  test('headings that are folded leave a shelf’s list and its count, and no other shelf’s', async () => {
    const shelf = await addShelf(people.librarian, { name: 'With headings' });
    for (const [title, headings] of [
      ['One', ['Drop', 'Sky']],
      ['Two', ['Drop', 'Sky']],
      ['Three', ['Drop']],
      ['Four', []],
    ] as const)
      await make(title, shelf, [...headings]);
    expect((await headingsOfShelf(people.retoucher, shelf)).headings).toEqual([
      { headings: ['Drop', 'Sky'], items: 2 },
      { headings: ['Drop'], items: 1 },
    ]);
    const left = async (search: Search) => {
      const { rows, counts } = await searchShelves(people.retoucher, search);
      return [counts.n, ...rows.map((row) => row.title)];
    };
    expect(await left({ shelf, folded: 'Drop / Sky' })).toEqual([2, 'Three', 'Four']);
    expect(await left({ shelf, folded: 'Drop / Sky|Drop' })).toEqual([1, 'Four']);
    expect(await left({ shelf, folded: "Nothing so|'" })).toEqual([4, 'One', 'Two', 'Three', 'Four']);
    expect(await left({ shelf, folded: 'Dr\0op|Drop' })).toEqual([3, 'One', 'Two', 'Four']);
    expect((await searchShelves(people.retoucher, { kind: 'lo\0ok', q: '\0' })).counts.n).toBe(0);
    expect((await searchShelves(people.retoucher, { folded: 'Drop' })).counts.n).toBeGreaterThan(3);
  });
  test('a ribbon is one’s own, the house’s is everybody’s', async () => {
    const [kiln] = (await searchShelves(people.retoucher, { q: 'kiln' })).rows;
    await setRibbon(people.retoucher, must(kiln).id, { on: true, whose: 'mine' });
    expect(
      (await searchShelves(people.retoucher, { ribbon: 'any' })).rows.map((s) => [s.title, s.mine, s.house]),
    ).toEqual([['Kiln Glaze Deep', true, false]]);
    expect((await searchShelves(people.librarian, { ribbon: 'any' })).rows).toEqual([]);
    await expect(setRibbon(people.retoucher, must(kiln).id, { on: true, whose: 'house' })).rejects.toMatchObject({
      code: 'not-allowed',
    });
    await setRibbon(people.librarian, must(kiln).id, { on: true, whose: 'house' });
    expect((await searchShelves(people.lead, { ribbon: 'any' })).rows.map((s) => s.house)).toEqual([true]);
  });
});

describe('two people at one item', () => {
  test('other fields are merged and said, the same field is a conflict with both values, and nothing is lost', async () => {
    const { itemId } = await make('Twice Described', other);
    const { item } = await itemFor(people.librarian, itemId);
    const base = { title: item.title, description: item.description, tags: item.tags };
    await editItem(people.librarian, itemId, {
      revision: item.revision,
      base,
      mine: { ...base, title: 'Once Described' },
    });
    expect(
      await editItem(people.librarian, itemId, {
        revision: item.revision,
        base,
        mine: { ...base, description: 'for costumes' },
      }),
    ).toMatchObject({ merged: ['title'] });
    expect((await itemFor(people.librarian, itemId)).item).toMatchObject({
      title: 'Once Described',
      description: 'for costumes',
    });
    const late = await editItem(people.librarian, itemId, {
      revision: item.revision,
      base,
      mine: { ...base, title: 'Too Late' },
    }).then(
      () => null,
      (e: unknown) => e as EditConflict,
    );
    expect(late?.toJSON()).toMatchObject({
      code: 'edited-meanwhile',
      fields: [{ field: 'title', base: 'Twice Described', mine: 'Too Late', theirs: 'Once Described' }],
    });
    // the second person decides, on what they have now been shown
    await editItem(people.librarian, itemId, {
      revision: must(late).revision,
      base: { title: 'Once Described' },
      mine: { title: 'Too Late' },
    });
    expect((await itemFor(people.librarian, itemId)).item).toMatchObject({
      title: 'Too Late',
      description: 'for costumes',
    });
  });
});

describe('many at once', () => {
  test('titles by pattern, with the file names that result in each editor; then all or none', async () => {
    await transaction((sql) => bringDescriptor(sql, { personId: null, name: 'test' }, perrinAlder, 'card'));
    const ids = [(await make('Wash: deep/blue', other)).itemId, (await make('Wash: deep blue', other)).itemId];
    const rows = await previewBulk(people.librarian, {
      items: ids,
      title: { find: 'Wash', replace: 'Glaze', pattern: '{title} no. {n}' },
      addTags: ['kiln'],
    });
    expect(rows.map((r) => [r.after, r.changes])).toEqual([
      ['Glaze: deep/blue no. 1', ['tags']],
      ['Glaze: deep blue no. 2', ['tags']],
    ]);
    const names = rows.map((r) => must(r.files[0]).name);
    expect(new Set(names).size).toBe(2);
    for (const name of names) {
      expect(name).toMatch(/^[A-Z0-9_-]+\.cube$/i);
      expect(name.length).toBeLessThanOrEqual(28);
    }
    await expect(
      applyBulk(people.librarian, { items: ids, title: { pattern: 'x'.repeat(199) + '{n}{n}' } }),
    ).rejects.toMatchObject({ code: 'input-invalid' });
    expect((await itemFor(people.librarian, must(ids[0]))).item.title).toBe('Wash: deep/blue');
    await applyBulk(people.librarian, {
      items: ids,
      addTags: ['kiln'],
      set: { cameras: ['Perrin Alder'], headings: ['Glazes'] },
    });
    expect((await searchItems(people.librarian, { tag: 'kiln', camera: 'Perrin Alder' })).rows).toHaveLength(2);
  });
  test('what is said of what it works on leaves what it gives as it was', async () => {
    const { itemId } = await make('Scoped', other);
    const scopeOf = async () => (await itemFor(people.librarian, itemId)).item.scope;
    await applyBulk(people.librarian, { items: [itemId], set: { scope: { result: 'monochrome' } } });
    await applyBulk(people.librarian, { items: [itemId], set: { scope: { input: 'camera data' } } });
    expect(await scopeOf()).toEqual({ input: 'camera data', result: 'monochrome' });
    await applyBulk(people.librarian, { items: [itemId], set: { scope: { result: null } } });
    expect(await scopeOf()).toEqual({ input: 'camera data', result: null });
  });
  test('archived items are found in the archive alone, and come back', async () => {
    const { itemId } = await make('Put Away Soon', other);
    await archiveItems(people.librarian, { items: [itemId], archived: true });
    expect((await searchItems(people.librarian, { q: 'put away' })).rows).toEqual([]);
    expect((await searchItems(people.librarian, { q: 'put away', archived: '1' })).rows.map((r) => r.id)).toEqual([
      itemId,
    ]);
    await archiveItems(people.librarian, { items: [itemId], archived: false });
    expect((await searchItems(people.librarian, { q: 'put away' })).rows).toHaveLength(1);
  });
  test('least strength is not above the most; what takes no strength at all is as made', async () => {
    const { itemId } = await make('Dosed', other);
    const at = async (mine: Record<string, number>) => {
      const { item } = await itemFor(people.librarian, itemId);
      return editItem(people.librarian, itemId, {
        revision: item.revision,
        base: {
          strength_least: item.strength_least,
          strength_usual: item.strength_usual,
          strength_most: item.strength_most,
        },
        mine,
      });
    };
    await expect(at({ strength_least: 200 })).rejects.toMatchObject({
      code: 'input-invalid',
      message: 'The least strength is above the most.',
    }); // above the most that stands
    await expect(at({ strength_least: 150 })).rejects.toMatchObject({
      message: expect.stringContaining('takes no strength') as string,
    });
    await expect(at({ strength_least: 100, strength_usual: 50, strength_most: 100 })).rejects.toMatchObject({
      code: 'input-invalid',
    });
    await at({ strength_least: 100, strength_usual: 100, strength_most: 100 });
    expect((await itemFor(people.librarian, itemId)).item).toMatchObject({ strength_least: 100, strength_most: 100 });
    await at({ strength_least: 0, strength_most: 150 });
  });
});

describe('search and facets', () => {
  const counted = async () =>
    Object.fromEntries((await searchCounts(people.librarian, {})).facets.map((f) => [`${f.key}:${f.value}`, f.n]));
  test('counts are maintained through making, editing, archiving and approving', async () => {
    const count = async () =>
      Object.fromEntries(
        (
          await many<{ facet: string; n: number }>(
            pool(),
            `
              select f as facet, count(*)::int as n
              from item, unnest(facets) f
              where archived_at is null
              group by 1
            `,
          )
        ).map((r) => [r.facet, r.n]),
      );
    expect(await counted()).toEqual(await count());
    const { itemId } = await make('Counted', other);
    await editItem(people.librarian, itemId, {
      revision: 1,
      base: {},
      mine: { tags: ['velvet'], cameras: ['Ondine 40'] },
    });
    expect((await counted())['tag:velvet']).toBe(1);
    await archiveItems(people.librarian, { items: [itemId], archived: true });
    expect((await counted())['tag:velvet']).toBeUndefined();
    expect(await counted()).toEqual(await count());
  });
  test('words are found in cameras, tags and the settings that a preset uses; each narrows further', async () => {
    const facts = {
      language: 'oxbow@2',
      settings: { hueSectors: [{ center: 20, width: 80, turn: 5, chroma: 1, lightness: 0 }] },
      classes: {},
    };
    await transaction(async (sql) =>
      createItem(sql, actorOf(people.librarian), {
        kind: 'preset',
        title: 'Madder Turn',
        headings: [],
        shelfId: other,
        supplier: 'Fathom Color',
        sha: await putBlob(sql, Buffer.from('x')),
        fileName: 'm.xmp',
        format: 'oxbow@2',
        facts,
        selvedge: null,
        notes: '',
      }),
    );
    const titles = async (search: Record<string, string>) =>
      (await searchItems(people.librarian, search)).rows.map((r) => r.title);
    expect(await titles({ q: 'hue sectors' })).toEqual(['Madder Turn']);
    expect(await titles({ q: 'hue sec', supplier: 'Fathom Color' })).toEqual(['Madder Turn']);
    expect(await titles({ q: 'hue', supplier: 'own work' })).toEqual([]);
    expect(await titles({ q: 'ma' })).toContain('Madder Turn');
    expect(
      (await searchCounts(people.librarian, { q: 'hue sectors' })).facets.find((f) => f.key === 'kind'),
    ).toMatchObject({ value: 'preset', n: 1, more: false });
  });
  test('what others brought in is new to a person until she says that she has seen it; then what comes later', async () => {
    await markSeen(people.retoucher);
    const fresh = async (person = people.retoucher) => {
      const { rows, counts } = await searchShelves(person, { fresh: '1' });
      expect(counts.n).toBe(await freshCount(person));
      return rows.map((r) => r.title).sort();
    };
    expect(await fresh()).toEqual([]);
    const { itemId } = await make('Came Later', other);
    const before = await fresh(people.librarian);
    await make('And Later', other);
    expect(await fresh()).toEqual(['And Later', 'Came Later']);
    expect(await fresh(people.librarian)).toEqual(before); // her own
    expect((await searchItems(people.retoucher, { q: 'later' })).rows.map((r) => r.fresh)).toEqual([true, true]);
    expect((await searchItems(people.retoucher, { q: 'plain 01' })).rows.map((r) => r.fresh)).toEqual([false]);
    expect((await searchItems(people.retoucher, { q: 'came', fresh: '1' })).rows.map((r) => r.title)).toEqual([
      'Came Later',
    ]);
    const own = await addShelf(people.librarian, { name: 'New things', query: { fresh: '1' } });
    expect((await searchItems(people.retoucher, { shelf: own })).rows).toHaveLength(2);
    await markSeen(people.retoucher);
    expect(await fresh()).toEqual([]);
    await transaction(async (sql) =>
      addVersion(sql, actorOf(people.librarian), itemId, {
        kind: 'look',
        sha: await putBlob(sql, Buffer.from(cubeOf(must(houseLooks[1]), 2))),
        fileName: 'Came Later.cube',
        format: 'cube',
        facts: { kind: '3d', size: 2 },
        selvedge: null,
        notes: '',
      }),
    );
    expect(await fresh()).toEqual(['Came Later']);
    await archiveItems(people.librarian, { items: [itemId], archived: true });
    expect(await freshCount(people.retoucher)).toBe(0);
  });
  test('a shelf that fills itself by a saved search', async () => {
    const id = await addShelf(people.librarian, {
      name: 'Presets of Fathom',
      query: { kind: 'preset', supplier: 'Fathom Color' },
    });
    expect((await searchItems(people.librarian, { shelf: id })).rows.map((r) => r.title)).toEqual(['Madder Turn']);
    expect((await searchItems(people.librarian, { shelf: id, q: 'nothing such' })).rows).toEqual([]);
    await expect(
      moveItems(people.librarian, { items: [(await make('Not By Hand', other)).itemId], shelfId: id }),
    ).rejects.toMatchObject({ code: 'shelf-search' });
  });
  test('recently used comes last first', async () => {
    const first = (await make('Used First', other)).itemId;
    const last = (await make('Used Last', other)).itemId;
    for (const id of [first, last]) await noteView(people.lead, id);
    expect((await searchItems(people.lead, { recent: '1' })).rows.slice(0, 2).map((r) => r.title)).toEqual([
      'Used Last',
      'Used First',
    ]);
  });
});

describe('what a look’s values mean', () => {
  test('a confirmed encoding changes what it does here, and its spine; another reading is shown without being confirmed', async () => {
    const { itemId, versionId } = await make('Linear Study', other);
    const before = await versionFor(people.librarian, versionId);
    const assumed = await lookOf(before);
    const was = selvedge(sampler(assumed));
    const shown = await renderingFor(people.librarian, versionId, 0, 'Rec. 2020, linear, full');
    const plain = await renderingFor(people.librarian, versionId, 0, '');
    expect(shown.tag).not.toBe(plain.tag);
    const tableIn = async (rendering: Awaited<ReturnType<typeof renderingFor>>): Promise<Look> => {
      const made = await rendering.make();
      if (made.kind !== 'table') throw new Error('a look is rendered by its table');
      return made.look;
    };
    const far = (look: Look, other: Look): number => {
      const evaluate = sampler(look);
      const ofOther = sampler(other);
      const inputs = new Float64Array(3);
      const values = new Float64Array(3);
      evaluate(0.3, 0.5, 0.7, inputs, 0);
      ofOther(0.3, 0.5, 0.7, values, 0);
      return Math.max(...inputs.map((v, i) => Math.abs(v - must(values[i]))));
    };
    expect(far(await tableIn(plain), assumed)).toBeLessThan(1e-6);
    expect(far(await tableIn(shown), assumed)).toBeGreaterThan(0.005);
    await confirmEncoding(people.librarian, versionId, {
      primaries: 'Rec. 2020',
      transfer: 'linear',
      range: 'full',
      referred: 'display',
      white: 'D65',
    });
    const after = await versionFor(people.librarian, versionId);
    expect(far(await lookOf(after), await tableIn(shown))).toBeLessThan(1e-6);
    expect((await itemFor(people.librarian, itemId)).newest.selvedge).not.toEqual(was);
    await confirmEncoding(people.librarian, versionId, {
      primaries: 'sRGB',
      transfer: 'sRGB',
      range: 'full',
      referred: 'scene',
      white: 'D65',
      output: { primaries: 'Display P3', transfer: 'sRGB', range: 'full' },
    });
    const apart = await versionFor(people.librarian, versionId);
    expect(apart.encoding).toMatchObject({ assumed: false, output: { primaries: 'Display P3' } });
    expect(far(await lookOf(apart), assumed)).toBeGreaterThan(0.005);
    await expect(
      confirmEncoding(people.librarian, versionId, {
        primaries: 'sRGB',
        transfer: 'sRGB',
        range: 'full',
        referred: 'scene',
        white: 'D65',
        output: { primaries: 'sRGB' },
      }),
    ).rejects.toMatchObject({ code: 'input-invalid' });
    await confirmEncoding(people.librarian, versionId, {
      primaries: 'sRGB',
      transfer: 'sRGB',
      range: 'full',
      referred: 'display',
      white: 'D65',
    });
    expect((await itemFor(people.librarian, itemId)).newest.selvedge).toEqual(was);
    await expect(renderingFor(people.librarian, versionId, 0, 'half a space')).rejects.toMatchObject({
      code: 'reading',
    });
  });
});

describe('order by hand', () => {
  test('items are moved before another, and onto another shelf', async () => {
    const shelf = await addShelf(people.librarian, { name: 'By hand' });
    const ids: string[] = [];
    for (const t of ['A', 'B', 'C']) ids.push((await make(`Hand ${t}`, shelf)).itemId);
    const order = async () =>
      (await searchItems(people.librarian, { shelf })).rows.map((r) => r.title.slice(-1)).join('');
    await moveItems(people.librarian, { items: [must(ids[2])], shelfId: shelf, before: must(ids[0]) });
    expect(await order()).toBe('CAB');
    await moveItems(people.librarian, { items: [must(ids[0]), must(ids[1])], shelfId: other });
    expect(await order()).toBe('C');
  });
  test('a shelf is ordered by headings, and within them by title', async () => {
    const shelf = await addShelf(people.librarian, { name: 'By headings' });
    for (const [title, headings] of [
      ['Zinc', ['Warm']],
      ['Ash', ['warm', 'Low']],
      ['Bone', ['Cool']],
      ['Alder', ['Warm']],
    ] as const)
      await make(title, shelf, [...headings]);
    const order = async () => (await searchItems(people.librarian, { shelf })).rows.map((r) => r.title);
    expect(await order()).toEqual(['Zinc', 'Ash', 'Bone', 'Alder']);
    await orderByHeadings(people.librarian, shelf);
    expect(await order()).toEqual(['Bone', 'Alder', 'Zinc', 'Ash']);
    await expect(
      orderByHeadings(people.librarian, await addShelf(people.librarian, { name: 'Filled', query: { kind: 'look' } })),
    ).rejects.toMatchObject({ code: 'shelf-search' });
  });
  test('a shelf is put away for oneself and comes back', async () => {
    await putAway(people.retoucher, bench, true);
    expect((await searchShelves(people.retoucher, {})).rows.some((s) => s.shelf_id === bench)).toBe(false);
    expect((await searchShelves(people.lead, {})).rows.some((s) => s.shelf_id === bench)).toBe(true);
    await putAway(people.retoucher, bench, false);
    expect((await searchShelves(people.retoucher, {})).rows.some((s) => s.shelf_id === bench)).toBe(true);
  });
});

test('a CSV holds every row, and no cell that a spreadsheet would run', async () => {
  await make('=HYPERLINK("x")', other);
  const csv = await itemsCsv(people.librarian, { q: 'hyperlink' });
  expect(csv).toContain(`"'=HYPERLINK(""x"")"`);
});
