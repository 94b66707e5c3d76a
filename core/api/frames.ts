/** Looking after the reference frames. */
import { boolean, object, string, type InferType } from 'yup';
import { endpoint } from './endpoint';
import { nameField } from './named';

const text = (most: number) => string().trim().max(most, `At most ${most} signs.`).default('');

/** What people call a frame, and by what it is grouped. */
export const frameWords = object({
  name: nameField('A frame needs a name.'),
  light: text(200),
  subject: text(120),
}).noUnknown();
export type FrameWords = InferType<typeof frameWords>;

export const frameEndpoints = {
  'PATCH /api/frames/:id': endpoint({ body: frameWords }),
  'POST /api/frames/:id/archive': endpoint({ body: object({ archived: boolean().required() }).noUnknown() }),
} as const;
