import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, test } from 'vitest';
import { draw } from '../testing/render';
import { serve } from '../testing/server';
import { router } from '../testing/setup';
import { ConversionActions } from './ConversionActions';
import { choices, recipeOfChoice, recipeWords, valueOf } from './model/recipe-words';
import { carriableOf, clashing, going, worst, type Row } from './model/row';
import { Naming } from './Naming';
import { RecipeForm } from './RecipeForm';
import { Rows } from './Rows';

const bake = { tool: 'bake', size: 33, leave: [] as string[] } as const;
const languages = [
  { id: 'oxbow@2', title: 'Oxbow 2', calls: true },
  { id: 'marlstone@4', title: 'Marlstone 4', calls: false },
];

type Outcome = NonNullable<Row['outcome']>;
const outcome: Outcome = {
  said: 'table of 33 points',
  carried: ['level'],
  approximated: [],
  left: [{ setting: 'grain', reason: 'is laid on the picture as a whole' }],
  unknown: [],
  error: { meanDeltaE: 0.1, p95DeltaE: 0.3, maxDeltaE: 1.2 },
  changes: null,
};
const coming = (part: Partial<Outcome>): Partial<Row> => ({ outcome: { ...outcome, ...part } });

const row = (part: Partial<Row> = {}): Row => ({
  place: 1,
  source: { itemId: 'a', title: 'Side Light', kind: 'preset', number: 2, selvedge: null },
  name: 'Side Light',
  clashes: false,
  named: false,
  shelf: 'House looks',
  excluded: false,
  status: 'planned',
  recipe: { ...bake, leave: [] },
  own: false,
  outcome,
  problem: null,
  made: null,
  ...part,
});
const within3 = { mean: 0.5, max: 3 };

describe('what a plan comes to', () => {
  test('rows that are left out, refused or whose name is borne are not made', () => {
    const rows = [
      row(),
      row({ place: 2, excluded: true }),
      row({ place: 3, status: 'refused' }),
      row({ place: 4, clashes: true }),
    ];
    expect(going(rows, 'number').map(({ place }) => place)).toEqual([1, 4]);
    expect(going(rows, 'leave').map(({ place }) => place)).toEqual([1]);
    expect(clashing(rows).map(({ place }) => place)).toEqual([4]);
  });

  test('settings are counted over all rows, those that are left out too', () => {
    const chosen = coming({ carried: [], left: [{ setting: 'level', reason: 'was not chosen' }] });
    const left = row({ recipe: { ...bake, leave: ['level'] }, ...chosen });
    const found = carriableOf([left, row({ place: 2, own: true })], { ...bake, leave: ['level'] });
    expect(found).toMatchObject([{ setting: 'level', used: 2, left: true }]);
    expect(carriableOf([left], { tool: 'preset', to: 'oxbow@2' })).toEqual([]);
  });

  test('the largest error is named', () => {
    const bad = row({ place: 2, name: 'Rim', ...coming({ error: { meanDeltaE: 1, p95DeltaE: 2, maxDeltaE: 15 } }) });
    expect(worst([row(), bad])).toEqual({ name: 'Rim', max: 15 });
    expect(worst([])).toBeNull();
  });
});

describe('a recipe in words', () => {
  test('each choice makes a recipe that is told by the same choice', () => {
    for (const { value } of choices(languages))
      expect(valueOf(recipeOfChoice(value, { ...bake, leave: [] }))).toBe(value);
    expect(choices(languages).filter(({ value }) => value.startsWith('companion'))).toHaveLength(1);
  });
  test.each([
    [{ ...bake, leave: [] }, 'looks, tables of 33 points'],
    [{ ...bake, leave: ['level'] }, 'looks, tables of 33 points, without Level'],
    [{ ...bake, leave: [], above: 4 }, 'looks, tables of 33 points to +4 EV'],
    [{ tool: 'preset', to: 'oxbow@2' } as const, 'presets of Oxbow 2'],
    [{ tool: 'companion', to: 'oxbow@2', strength: 60 } as const, 'presets of Oxbow 2 that call the look at 60 %'],
    [{ tool: 'derive', form: 'clf', points: 33, kelvin: 5000, camera: '', frame: '' } as const, 'looks: CLF'],
  ])('%j', (recipe, words) => {
    expect(recipeWords(recipe, languages)).toBe(words);
  });
});

const frames = [{ id: '01a1b2c3-0000-7000-8000-000000000001', name: 'Lamp', camera: 'Perrin Alder' }];

describe('the recipe of a plan', () => {
  function show() {
    const asked = serve({ 'PATCH /api/conversions/one': {} });
    const settings = [{ setting: 'level', title: 'Level', family: 'tone', used: 3, left: false }];
    draw(
      <RecipeForm
        id="one"
        recipe={{ ...bake, leave: [] }}
        languages={languages}
        settings={settings}
        frames={frames}
        may
      />,
    );
    return { asked, user: userEvent.setup() };
  }
  test('is sent when it is asked for, and not before', async () => {
    const { asked, user } = show();
    expect(screen.queryByRole('button')).toBeNull();
    await user.selectOptions(screen.getByLabelText('Points an axis'), '65');
    await user.click(screen.getByLabelText(/^Level/));
    expect(asked).toEqual([]);
    await user.click(screen.getByRole('button', { name: 'Work it out anew' }));
    expect(asked.map(({ body }) => body)).toEqual([{ recipe: { tool: 'bake', size: 65, leave: ['level'] } }]);
    expect(router.refresh).toHaveBeenCalled();
  });
  test('keeps a number as it was typed, and says what is out of range', async () => {
    const { asked, user } = show();
    await user.selectOptions(screen.getByLabelText('Each becomes'), 'companion oxbow@2');
    const strength = screen.getByLabelText('Strength, in percent');
    await user.clear(strength);
    await user.type(strength, '4500{Enter}');
    expect(screen.getByText(/400/)).toBeTruthy();
    await user.clear(strength);
    await user.type(strength, '60{Enter}');
    await user.click(screen.getByRole('button', { name: 'Work it out anew' }));
    expect(asked.map(({ body }) => body)).toEqual([{ recipe: { tool: 'companion', to: 'oxbow@2', strength: 60 } }]);
  });
  test('says how far a table reaches, and no more of it where that is display white', async () => {
    const { asked, user } = show();
    await user.selectOptions(screen.getByLabelText('Reaches'), 'to +4 EV above middle gray');
    await user.click(screen.getByRole('button', { name: 'Work it out anew' }));
    expect(asked.map(({ body }) => body)).toEqual([{ recipe: { tool: 'bake', size: 33, leave: [], above: 4 } }]);
    await user.selectOptions(screen.getByLabelText('Reaches'), 'from black to display white');
    expect(screen.queryByRole('button', { name: 'Work it out anew' })).toBeNull();
  });
  test('of an anchored profile names the frame whose neutral is meant', async () => {
    const { asked, user } = show();
    await user.selectOptions(screen.getByLabelText('Each becomes'), 'derive anchored');
    await user.selectOptions(screen.getByLabelText('Of this frame the neutral is put there'), 'Lamp, Perrin Alder');
    await user.click(screen.getByRole('button', { name: 'Work it out anew' }));
    const recipe = { tool: 'derive', form: 'anchored', points: 33, kelvin: 5000, camera: '', frame: frames[0]?.id };
    expect(asked.map(({ body }) => body)).toEqual([{ recipe }]);
  });
  test('is put back as it was', async () => {
    const { asked, user } = show();
    await user.selectOptions(screen.getByLabelText('Each becomes'), 'preset marlstone@4');
    expect(screen.queryByLabelText('Points an axis')).toBeNull();
    await user.click(screen.getByRole('button', { name: 'As it was' }));
    expect(screen.getByLabelText<HTMLSelectElement>('Points an axis').value).toBe('33');
    expect(asked).toEqual([]);
  });
});

describe('names', () => {
  test('what becomes of those that are borne is asked once, and only where there are some', async () => {
    const asked = serve({ 'PATCH /api/conversions/one': {} });
    const props = { id: 'one', naming: '{title}', shelfId: null, clash: null, shelves: [], may: true };
    const { rerender } = draw(<Naming {...props} clashes={0} />);
    expect(screen.queryByRole('radio')).toBeNull();
    rerender(<Naming {...props} clashes={2} />);
    const user = userEvent.setup();
    await user.click(screen.getByLabelText('Leave these out'));
    expect(screen.getByLabelText<HTMLInputElement>('Leave these out').checked).toBe(true);
    await user.clear(screen.getByLabelText(/^Title, as a pattern/));
    await user.type(screen.getByLabelText(/^Title, as a pattern/), 'Kiln {{title}{Enter}');
    expect(asked.map(({ body }) => body)).toContainEqual({ clash: 'leave' });
    expect(asked.map(({ body }) => body)).toContainEqual({ naming: 'Kiln {title}' });
  });
});

describe('rows', () => {
  function show(rows: Row[], open = true) {
    const asked = serve({ 'PATCH /api/conversions/one/rows': {} });
    draw(<Rows id="one" rows={rows} within={within3} open={open} />);
    return { asked, user: userEvent.setup() };
  }
  test('say what is carried and left, with reasons, and whether the error is within limits', () => {
    const source = { itemId: 'b', title: 'Rim', kind: 'preset', number: 1, selvedge: null };
    const bad = row({ place: 2, source, ...coming({ error: { meanDeltaE: 1, p95DeltaE: 2, maxDeltaE: 15 } }) });
    show([row(), bad]);
    const [, first, second] = screen.getAllByRole('row');
    expect(first?.textContent).toContain('1 carried, 1 left out');
    expect(first?.textContent).toContain('is laid on the picture as a whole');
    expect(first?.textContent).toContain('within the studio’s limits');
    expect(second?.textContent).toContain('largest 15.00');
    expect(second?.textContent).toContain('more than the studio takes');
  });
  test('are left out one by one or all at once, and named', async () => {
    const { asked, user } = show([
      row(),
      row({ place: 2, source: { itemId: 'b', title: 'Rim', kind: 'preset', number: 1, selvedge: null } }),
    ]);
    await user.click(screen.getByLabelText('Make Rim'));
    // at once, before the server has said so
    expect(screen.getByLabelText<HTMLInputElement>('Make Rim').checked).toBe(false);
    await user.click(screen.getByLabelText('Make Rim'));
    await user.click(screen.getByLabelText('Make all'));
    const name = screen.getByLabelText('Title of what Side Light becomes');
    await user.clear(name);
    await user.type(name, 'Side Glow{Enter}');
    const bodies = asked.map(({ body }) => body);
    expect(bodies).toContainEqual({ places: [2], excluded: true });
    expect(bodies).toContainEqual({ places: [1, 2], excluded: true });
    expect(bodies.filter((body) => 'title' in (body as object))).toEqual([{ places: [1], title: 'Side Glow' }]);
  });
  test('one is made otherwise than the rest', async () => {
    const { asked, user } = show([row()]);
    await user.click(screen.getByRole('button', { name: 'make it otherwise' }));
    const dialog = within(await screen.findByRole('dialog'));
    await user.selectOptions(dialog.getByLabelText('Points an axis'), '17');
    await user.click(dialog.getByRole('button', { name: 'Work it out' }));
    expect(asked.map(({ body }) => body)).toEqual([{ places: [1], size: 17, leave: [] }]);
  });
  test('of what is over, none can be changed; why one could not be made is said', () => {
    const problem = { code: 'x', message: 'Nothing would be left.', where: '', remedy: 'Choose another.' };
    show([row({ status: 'refused', outcome: null, problem })], false);
    expect(screen.queryByRole('checkbox')).toBeNull();
    expect(screen.getByText(/Nothing would be left/)).toBeTruthy();
  });
  test('what is made again tells what changes', () => {
    const changes = { color: { mean: 0.4, max: 2 }, settings: ['level'] };
    show([row({ named: true, ...coming({ changes }) })]);
    expect(screen.getByText(/changed: Level/)).toBeTruthy();
    expect(screen.getByText(/mean 0.40, largest 2.00/)).toBeTruthy();
    expect(screen.queryByLabelText(/^Title of what/)).toBeNull();
  });
});

describe('what can be done with a conversion', () => {
  const show = (part: Partial<Parameters<typeof ConversionActions>[0]>) => {
    const asked = serve({ 'POST /api/conversions/one': {} });
    const may = { convert: true, approve: true };
    draw(<ConversionActions id="one" status="planned" going={3} failed={0} drafts={[]} may={may} {...part} />);
    return { asked, user: userEvent.setup() };
  };
  const buttons = () => screen.queryAllByRole('button').map((button) => button.textContent);
  test.each([
    ['planning', {}, ['Drop the plan']],
    ['planned', {}, ['Drop the plan', 'Make 3 items']],
    ['running', {}, ['Pause', 'Stop for good']],
    ['paused', { failed: 1 }, ['Stop for good', 'Go on with 3 items', 'Try 1 item again']],
    ['done', { going: 0, drafts: ['a', 'b'] }, ['Approve 2 drafts']],
    ['stopped', { going: 0 }, []],
  ] as const)('%s', (status, part, names) => {
    show({ status, ...(part as object) });
    expect(buttons()).toEqual(names);
  });
  test('nothing is offered to who may not', () => {
    show({ may: { convert: false, approve: false } });
    expect(buttons()).toEqual([]);
  });
  test('dropping leads away, starting stays', async () => {
    const { asked, user } = show({});
    await user.click(screen.getByRole('button', { name: 'Make 3 items' }));
    await user.click(screen.getByRole('button', { name: 'Drop the plan' }));
    expect(asked.map(({ body }) => body)).toEqual([{ verb: 'start' }, { verb: 'drop' }]);
    expect(router.push).toHaveBeenCalledWith('/convert');
  });
});
