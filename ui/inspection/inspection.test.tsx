import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, test, vi } from 'vitest';
import type { CheckedThing } from '@/core/editor/checklist';
import { checkNames } from '@/core/editor/checklist';
import type { Inspection } from '@/core/look/inspect';
import { draw } from '../testing/render';
import { refusal, serve } from '../testing/server';
import { router } from '../testing/setup';
import { InspectionOfMany } from './InspectionOfMany';
import { inspectionAddress, type Found, type InspectedItem } from './model/item';
import { inspectionCsv, orderedBy, sorted } from './model/table';

const figures: Inspection['figures'] = {
  banding: 0,
  shadowLevels: 28,
  clippedHighlights: 0,
  clippedShadows: 0,
  largestFall: 0,
  neutralTint: 1.5,
  meanNeutralTint: 0.5,
  folds: 0,
  outOfRange: 0,
  hueSwing: 12,
  hueBySector: [],
  skinTurn: null,
  roughness: 0.2,
  neutralRange: [0, 100],
};
const good: Inspection = { verdict: 'good', findings: [], figures, ramp: [[0, 0, 0, 0]] };
const poor: Inspection = {
  verdict: 'poor',
  findings: [{ code: 'banding', severity: 'poor', figure: 4.2, unit: 'code values', message: 'Skies show steps.' }],
  figures: { ...figures, banding: 4.2, shadowLevels: 9 },
  ramp: [[0, 0, 0, 0]],
};
const item = (title: string): InspectedItem => ({
  id: `id-${title}`,
  versionId: `v-${title}`,
  title,
  about: 'look, version 1',
});
const [amber, kiln, lens] = [item('Amber'), item('Kiln 10'), item('Kiln 2')];
const found: Record<string, Found> = {
  [amber.versionId]: { is: 'found', inspection: good },
  [kiln.versionId]: { is: 'found', inspection: poor },
  [lens.versionId]: { is: 'none' },
};
const foundOf = ({ versionId }: InspectedItem): Found => found[versionId] ?? { is: 'waiting' };

describe('the table', () => {
  const titles = (by: Parameters<typeof orderedBy>[1], turned = false) =>
    sorted([amber, kiln, lens], foundOf, { by, turned }).map(({ title }) => title);

  test('has what needs a look first, and what is not known last, also turned round', () => {
    expect(titles('verdict')).toEqual(['Kiln 10', 'Amber', 'Kiln 2']);
    expect(titles('banding')).toEqual(['Kiln 10', 'Amber', 'Kiln 2']);
    expect(titles('shadowLevels')).toEqual(['Kiln 10', 'Amber', 'Kiln 2']);
    expect(titles('verdict', true)).toEqual(['Amber', 'Kiln 10', 'Kiln 2']);
    expect(titles('title')).toEqual(['Amber', 'Kiln 2', 'Kiln 10']);
    expect(orderedBy({ by: 'folds', turned: false }, 'folds').turned).toBe(true);
  });

  test('as CSV has each figure in full', () => {
    const [head, first, , third] = inspectionCsv([kiln, amber, lens], foundOf).split('\r\n');
    expect(head).toMatch(/^\ufeffitem,kind,verdict,findings,bands \(code values of 8 bits\),levels of the darkest 32,/);
    expect(first).toBe('Kiln 10,"look, version 1",poor,Bands,4.2,9,0,0,0,1.5,0,0,12,,0.2');
    expect(third).toBe('Kiln 2,"look, version 1",,,,,,,,,,,,,');
  });
});

const none = Object.fromEntries(checkNames.map((name) => [name, null])) as CheckedThing['checks'];
const target = { key: 'perrin-alder@1', title: 'Perrin Alder', isCard: true };
const things: CheckedThing[] = [
  {
    id: amber.id,
    title: amber.title,
    checks: { ...none, approval: { is: 'to-change', words: 'a draft', cure: { does: 'approve' } } },
  },
  { id: kiln.id, title: kiln.title, checks: { ...none, kind: { is: 'passed', words: 'yes' } } },
];
const may = { edit: true, approve: true, convert: true };
const page = (checked: Parameters<typeof InspectionOfMany>[0]['checked']) =>
  draw(
    <InspectionOfMany
      items={[amber, kiln]}
      cutAt={null}
      of=""
      address={inspectionAddress({ items: [amber.id, kiln.id] })}
      targets={[target]}
      checked={checked}
      may={may}
    />,
  );

describe('items inspected together', () => {
  test('are asked for one by one; what fails is said, and asked for again', async () => {
    let wrong = true;
    serve({
      'GET /api/versions/v-Amber/inspection': { inspection: good },
      'GET /api/versions/v-Kiln 10/inspection': () => (wrong ? refusal({ message: 'no' }) : { inspection: poor }),
      'GET /api/versions/v-Kiln%2010/inspection': () => (wrong ? refusal({ message: 'no' }) : { inspection: poor }),
    });
    const user = userEvent.setup();
    page(null);
    expect(await screen.findByText('could not be asked for')).toBeTruthy();
    wrong = false;
    await user.click(screen.getByRole('button', { name: 'Ask again' }));
    const table = screen.getByRole('table', { name: 'Figures' });
    await vi.waitFor(() =>
      expect(
        within(table)
          .getAllByRole('link')
          .map(({ textContent }) => textContent),
      ).toEqual(['Kiln 10', 'Amber']),
    );
    await user.click(screen.getByRole('button', { name: /^Item/ }));
    expect(
      within(table)
        .getAllByRole('link')
        .map(({ textContent }) => textContent),
    ).toEqual(['Amber', 'Kiln 10']);
    expect(screen.getAllByRole('img')).toHaveLength(2);
  });

  test('a target is chosen by the address', async () => {
    serve({});
    page(null);
    await userEvent.setup().selectOptions(screen.getByLabelText('Check for'), 'card of the Perrin Alder');
    expect(router.push).toHaveBeenCalledWith('/convert/inspection?items=id-Amber,id-Kiln+10&target=perrin-alder%401', {
      scroll: false,
    });
  });

  test('against a target, what is to be done has a button for all that need it', async () => {
    const asked = serve({ 'POST /api/items/approve': { versions: ['v'], left: [] } });
    page({
      target,
      things,
      cures: [
        { check: 'approval', cure: { does: 'approve' }, things: [{ id: amber.id, title: amber.title }] },
        { check: 'count', cure: { does: 'leave-out' }, things: [{ id: kiln.id, title: kiln.title }] },
      ],
    });
    expect(screen.getByText('1 passed as they are, 0 are made to fit on the way, 1 to change first.')).toBeTruthy();
    const user = userEvent.setup();
    await user.click(screen.getByRole('button', { name: 'Approve 1 draft' }));
    await vi.waitFor(() => expect(asked.find(({ method }) => method === 'POST')?.body).toEqual({ items: [amber.id] }));
    await user.click(screen.getByRole('button', { name: 'Leave it out' }));
    expect(router.push).toHaveBeenCalledWith('/convert/inspection?items=id-Amber&target=perrin-alder%401');
  });
});
