import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, describe, expect, test, vi } from 'vitest';
import type { Descriptor } from '@/core/editor/descriptor';
import { must } from '@/core/must';
import type { Property } from '@/core/preset/workshop/survey';
import { draw } from '../testing/render';
import { serve } from '../testing/server';
import { draftOf, toPropose, withSamples, workedOut } from './model/draft';
import { draftFrom, draftKey, forgetDraft, keepDraft, keptText } from './model/keep';
import { firstEntry, goingBy, meaningFrom, settingsFor, tableFrom, tableText, wayOf } from './model/rule';
import { Workshop } from './Workshop';

vi.mock('../kit/FramePreview', () => ({
  FramePreview: ({ label, settings }: { label: string; settings: object }) => (
    <p>
      {label}: {JSON.stringify(settings)}
    </p>
  ),
}));
afterEach(() => localStorage.clear());

const halyard: Descriptor = {
  editor: 'halyard',
  version: '1',
  title: 'Halyard',
  kind: 'editor',
  systems: ['linux'],
  sees: 'launch',
  listing: {},
  places: {},
  accepts: [],
  presets: {
    container: 'ini',
    recognise: { section: '.', key: 'made-with', value: 'Halyard 1' },
    mapping: { entries: [{ step: '.', attribute: 'exposure', to: 'level', scale: 0.01 }] },
  },
};
const text = 'made-with = Halyard 1\nexposure = 40\nmood = calm\n';
const dawn = { name: 'dawn.hyp', bytes: new TextEncoder().encode(text) };
const property = (over: Partial<Property>): Property => ({
  key: 'exposure',
  step: '.',
  when: {},
  attribute: 'exposure',
  type: 'number',
  samples: 1,
  low: -100,
  high: 50,
  whole: true,
  words: [],
  separators: null,
  examples: [],
  ...over,
});

describe('a draft', () => {
  test('tells what follows from it: properties, round trips, what stands for nothing', () => {
    const { properties, checked, unmapped, descriptor, problem } = workedOut({
      samples: [dawn],
      descriptor: halyard,
      emptyOf: 'dawn.hyp',
      base: null,
    });
    expect(properties.map(({ key }) => key)).toEqual(['made-with', 'exposure', 'mood']);
    expect(checked[0]?.read?.settings).toEqual({ level: 0.4 });
    expect(unmapped.map(({ key }) => key)).toEqual(['mood']);
    expect(descriptor?.presets?.template).toBe('made-with = Halyard 1\nmood = calm\n');
    expect(problem).toBeNull();
    expect(JSON.parse(toPropose(must(descriptor)))).toMatchObject({ editor: 'halyard' });
  });

  test('says why samples cannot be read, and keeps the rest', () => {
    const other = { name: 'b.json', bytes: new TextEncoder().encode('{}') };
    const worked = workedOut({ ...draftOf(null), samples: withSamples([dawn], [other, dawn]) });
    expect(worked.problem?.code).toBe('sample-container');
    expect(worked.properties).toEqual([]);
  });

  test('is kept in the browser, byte by byte, and forgotten', () => {
    const odd = { name: 'odd.hyp', bytes: Uint8Array.from([0, 255, 10, 128]) };
    keepDraft(localStorage, 'halyard@1', { samples: [odd], descriptor: halyard, emptyOf: '', base: null });
    expect(draftFrom(keptText(localStorage, 'halyard@1'))).toEqual({
      samples: [odd],
      descriptor: halyard,
      emptyOf: '',
      base: null,
    });
    expect(draftFrom(keptText(localStorage, ''))).toBeNull();
    expect(draftFrom('{broken')).toBeNull();
    forgetDraft(localStorage, 'halyard@1');
    expect(keptText(localStorage, 'halyard@1')).toBeNull();
  });
});

describe('samples', () => {
  const named = (name: string, text: string) => ({ name, bytes: new TextEncoder().encode(text) });

  test('of one name and other contents get a number; the same file counts once', () => {
    const all = withSamples([named('a', '1')], [named('a', '2'), named('b', '1'), named('a', '3')]);
    expect(all.map(({ name }) => name)).toEqual(['a', 'a (2)', 'a (3)']);
  });
});

describe('an entry', () => {
  test('begins as its property suggests, and as its setting needs', () => {
    expect(firstEntry(property({}), 'level')).toMatchObject({ to: 'level', scale: 0.05 });
    expect(firstEntry(property({}), 'grain')).toEqual({ step: '.', attribute: 'exposure', to: 'grain' });
    const word = property({ type: 'word', words: ['hard', 'soft'] });
    expect(firstEntry(word, 'contrast').names).toEqual({ hard: 1, soft: 1 });
    expect(firstEntry(word, 'cameraProfile').as).toBe('text');
    expect(firstEntry(word, 'look')).toEqual({
      step: '.',
      to: 'look',
      fields: { name: { attribute: 'exposure', as: 'text' } },
      constants: { strength: 100 },
    });
    expect(settingsFor(property({ type: 'points' })).map(({ id }) => id)).toEqual([
      'curve',
      'curveRed',
      'curveGreen',
      'curveBlue',
    ]);
    expect(meaningFrom('headings', word)).toEqual({ is: 'headings', separator: '/' });
  });

  test('goes by a table that begins where the scale was', () => {
    const entry = firstEntry(property({}), 'level');
    const table = goingBy(entry, 'table', property({}));
    expect(table.table).toEqual([
      [-100, -5],
      [50, 2.5],
    ]);
    expect([wayOf(table), wayOf(goingBy(table, 'exp2', property({})))]).toEqual(['table', 'exp2']);
    expect(tableFrom(tableText(must(table.table)))).toEqual(table.table);
    expect([tableFrom('1: 2'), tableFrom('a: 1, b: 2'), tableFrom('1: , 2: 3')]).toEqual([null, null, null]);
  });
});

const described = new Map([['oxbow@2', 'Oxbow 2']]);
const frames = [{ id: 'f1', name: 'Vessels', ratio: 1.5 }];
const sampleFile = new File([text], 'dawn.hyp', { type: 'text/plain' });
const workshop = (known: Descriptor | null) =>
  draw(
    <Workshop
      person="p1"
      editor={known ? 'halyard@1' : ''}
      known={known}
      described={described}
      held={[]}
      frames={frames}
    />,
  );
const row = (key: string) => within(must(document.querySelector<HTMLElement>(`[data-row="${key}"]`)));

describe('the workshop', () => {
  test('asks what a new editor is, and says at the field what is wrong', async () => {
    serve({});
    const user = userEvent.setup();
    workshop(null);
    await user.upload(screen.getByLabelText('Sample presets'), sampleFile);
    await screen.findByLabelText('Name of the editor');
    expect(screen.getByLabelText<HTMLInputElement>('Extension of its presets').value).toBe('.hyp');
    await user.type(screen.getByLabelText('Linux'), 'somewhere');
    await user.click(screen.getByRole('button', { name: 'Map its properties' }));
    expect(await screen.findByText('Say how the editor is called.')).toBeTruthy();
    expect(screen.getByText(/^A folder begins with/)).toBeTruthy();
    await user.clear(screen.getByLabelText('Linux'));
    await user.type(screen.getByLabelText('Name of the editor'), 'Halyard');
    await user.click(screen.getByRole('button', { name: 'Map its properties' }));
    expect(await screen.findByRole('table', { name: 'Properties' })).toBeTruthy();
    expect(row('made-with').getByText(/^tells the language/)).toBeTruthy();
    await user.click(row('exposure').getByRole('button', { name: /^Level\?/ }));
    expect(screen.getByText(/with dawn.hyp, as the mapping reads it: {"level":/)).toBeTruthy();
  });

  test('does not describe again what is described', async () => {
    serve({});
    const user = userEvent.setup();
    workshop(null);
    await user.upload(screen.getByLabelText('Sample presets'), sampleFile);
    await user.type(await screen.findByLabelText('Name of the editor'), 'Oxbow');
    await user.clear(screen.getByLabelText('Version'));
    await user.type(screen.getByLabelText('Version'), '2');
    await user.click(screen.getByRole('button', { name: 'Map its properties' }));
    expect((await screen.findByRole('alert')).textContent).toContain('Oxbow 2 is described already.');
    expect(screen.queryByRole('table', { name: 'Properties' })).toBeNull();
  });

  test('says where somebody has described the editor anew since the draft was begun', async () => {
    serve({});
    const draft = { ...draftOf({ ...halyard, title: 'Halyard, older' }), samples: [dawn], descriptor: halyard };
    keepDraft(localStorage, draftKey('p1', 'halyard@1'), draft);
    workshop(halyard);
    expect((await screen.findByRole('alert')).textContent).toContain('Somebody has described this editor anew');
    await userEvent.setup().click(screen.getByRole('button', { name: 'Begin anew' }));
    expect(screen.queryByRole('alert')).toBeNull();
  });

  test('follows what is changed, and proposes once it was said what would change', async () => {
    const asked = serve({
      'POST /api/editors/effect': { held: 3, items: [] },
      'POST /api/editors': { id: 'p', editor: 'halyard', version: '1' },
    });
    const user = userEvent.setup();
    workshop(halyard);
    await user.upload(screen.getByLabelText('Sample presets'), sampleFile);
    await screen.findByRole('table', { name: 'Properties' });
    await user.selectOptions(screen.getByLabelText('What mood stands for'), 'the preset’s title');
    expect(screen.getByText('Every property stands for something.')).toBeTruthy();
    await user.clear(screen.getByLabelText('times, of exposure'));
    await user.type(screen.getByLabelText('times, of exposure'), '0{Enter}');
    expect(screen.getByText(/has a scale of 0/)).toBeTruthy();
    await user.clear(screen.getByLabelText('times, of exposure'));
    await user.type(screen.getByLabelText('times, of exposure'), '0.05{Enter}');
    expect(screen.getByText(/as the mapping reads it: {"level":2}/)).toBeTruthy();
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Propose Halyard' }).disabled).toBe(true);
    await user.click(screen.getByRole('button', { name: 'What would change' }));
    expect(await screen.findByText('Nothing changes for the 3 presets that are held.')).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Propose Halyard' }));
    expect(await screen.findByText(/Halyard is proposed\./)).toBeTruthy();
    expect(asked.find(({ path }) => path === '/api/editors')?.body).toMatchObject({
      presets: { mapping: { title: { step: '.', attribute: 'mood' }, entries: [{ to: 'level', scale: 0.05 }] } },
    });
    expect(keptText(localStorage, draftKey('p1', 'halyard@1'))).toBeNull();
  });

  test('takes a mapping as JSON where it keeps the rules, and says where it does not', async () => {
    serve({});
    const user = userEvent.setup();
    workshop(halyard);
    await user.upload(screen.getByLabelText('Sample presets'), sampleFile);
    const area = await screen.findByLabelText<HTMLTextAreaElement>('The mapping as JSON', { selector: 'textarea' });
    const whole = area.value;
    await user.clear(area);
    await user.click(area);
    await user.paste(whole.replace('"level"', '"brilliance"'));
    await user.click(screen.getByRole('button', { name: 'Take this mapping' }));
    expect(await screen.findByText(/which is none of the common settings/)).toBeTruthy();
    await user.clear(area);
    await user.click(area);
    await user.paste(whole.replace('0.01', '0.02'));
    await user.click(screen.getByRole('button', { name: 'Take this mapping' }));
    expect(await screen.findByText(/as the mapping reads it: {"level":0.8}/)).toBeTruthy();
  });
});
