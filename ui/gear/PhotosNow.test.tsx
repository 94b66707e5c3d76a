import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, test } from 'vitest';
import type { Descriptor } from '@/core/editor/descriptor';
import { oxbowPreset } from '@/core/preset/testing';
import { draw } from '../testing/render';
import { serve } from '../testing/server';
import { PhotosNow } from './PhotosNow';

/** The smallest JPEG that says its size. */
const jpeg = new Uint8Array([
  0xff, 0xd8, 0xff, 0xc0, 0, 17, 8, 0, 20, 0, 30, 3, 1, 0x22, 0, 2, 0x11, 1, 3, 0x11, 1, 0xff, 0xd9,
]);
const sidecar = oxbowPreset(
  '<rdf:li run:step="lamp" run:stops="0.4"/><rdf:li run:step="table" run:name="Amber Proscenium" run:share="0.6"/>',
  { title: 'Evening' },
);
/** As much of a descriptor as tells the words of a sidecar. */
const brush = {
  editor: 'brush',
  version: '1',
  title: 'Brush 1',
  presets: {
    container: 'xmp',
    recognise: { namespace: /xmlns:run="([^"]+)"/.exec(sidecar)?.[1] },
    mapping: {
      entries: [
        { step: 'lamp', attribute: 'stops', to: 'level' },
        {
          step: 'table',
          to: 'look',
          fields: { name: { attribute: 'name', as: 'text' }, strength: { attribute: 'share', scale: 100 } },
        },
      ],
    },
  },
} as unknown as Descriptor;

test('a photo with its sidecar: what is on it, what of that is held, and what will be offered', async () => {
  const asked = serve({
    'POST /api/gear/offered': {
      editors: [{ editor: 'oxbow@2', title: 'Oxbow 2', shown: 2, of: 5, titles: ['Amber Proscenium', 'Ash'] }],
      held: [{ name: 'Amber Proscenium', id: 'amber' }],
    },
  });
  draw(<PhotosNow descriptors={[brush]} />);
  const files = [new File([jpeg], 'Bowl.jpg'), new File([sidecar], 'Bowl.xmp'), new File(['notes'], 'notes.txt')];
  await userEvent.setup().upload(screen.getByLabelText('Photos to read'), files);
  expect(await screen.findByText('1 photo read of 3 files.')).toBeTruthy();
  const row = document.querySelector('[data-photo="Bowl.jpg"]');
  expect(row?.textContent).toContain('Preset Evening not held');
  expect(row?.textContent).toContain('Look Amber Proscenium at 60 %');
  expect(screen.getByRole('link', { name: 'Amber Proscenium' }).getAttribute('href')).toBe('/items/amber');
  expect(row?.textContent).toContain('Oxbow 2: 2 of 5');
  expect(asked[0]?.body).toMatchObject({ kind: 'rendered', names: ['Evening', 'Amber Proscenium'] });
  // the photo itself is not sent
  expect(JSON.stringify(asked[0]?.body).length).toBeLessThan(200);
});
