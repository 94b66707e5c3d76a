/** The studio's cameras and lenses, what is missing for them, and why photos do not show. */
import { array, number, object, string, type InferType } from 'yup';
import { wishes } from '../records/coverage';
import type { PhotoGroup } from '../records/photos';
import { uuid } from '../uuid';
import { asIs, count, endpoint, exactly, id, listOf, made, texts, words } from './endpoint';

const text = (most: number) => string().trim().max(most).default('');
const list = (most: number) => array().of(string().trim().min(1).max(120).required()).max(most).default([]);
const side = (which: string) =>
  number()
    .typeError(`The ${which} of the sensor is a number of millimetres.`)
    .min(1, `The ${which} of the sensor is in millimetres, at least 1.`)
    .max(200, `The ${which} of the sensor is in millimetres, at most 200.`)
    .nullable()
    .default(null);

const lens = object({
  maker: text(80),
  model: string().trim().required('It needs a model.').max(120),
  names: list(40),
  mount: text(60),
}).noUnknown();
const camera = lens
  .shape({ conversion: text(60), serials: list(60), sensor_width: side('width'), sensor_height: side('height') })
  .noUnknown();

const request = object({
  camera: uuid().nullable().default(null),
  lens: uuid().nullable().default(null),
  about: string().trim().required('Say which camera or lens.').max(160),
  wanted: string()
    .oneOf([...wishes], 'Say what is wanted of it.')
    .required('Say what is wanted of it.'),
  askedOf: text(120),
  note: text(2000),
}).noUnknown();

const photos = object({
  photos: array()
    .of(
      object({
        maker: text(120),
        camera: text(120),
        unique: text(120),
        kind: string()
          .oneOf(['camera data', 'rendered'] as const)
          .required(),
        n: number().integer().min(1).max(1e6).default(1),
      })
        .noUnknown()
        .required(),
    )
    .min(1, 'There is no photo to explain.')
    .max(2000, 'At most 2,000 cameras are explained at once.')
    .required(),
}).noUnknown();

/** One photo, as it is asked what editors will offer for it. */
const photo = object({
  name: text(300),
  maker: text(120),
  camera: text(120),
  kind: string()
    .oneOf(['camera data', 'rendered'] as const)
    .required(),
  /** names of looks, presets and profiles that are on it */ names: array()
    .of(string().max(200).required())
    .max(40)
    .default([]),
}).noUnknown();

const offered = exactly({
  editor: words(),
  title: words(),
  /** so many approved items show for it */ shown: count(),
  /** of so many that were looked at */ of: count(),
  /** the first of them */ titles: texts(),
});
export type OfferedThere = InferType<typeof offered>;

export const gearEndpoints = {
  'POST /api/gear/cameras': endpoint({ body: camera, answer: made }),
  'PUT /api/gear/cameras/:id': endpoint({ body: camera, answer: made }),
  'DELETE /api/gear/cameras/:id': endpoint({}),
  'POST /api/gear/lenses': endpoint({ body: lens, answer: made }),
  'PUT /api/gear/lenses/:id': endpoint({ body: lens, answer: made }),
  'DELETE /api/gear/lenses/:id': endpoint({}),
  'POST /api/gear/requests': endpoint({ body: request, answer: made }),
  'PATCH /api/gear/requests/:id': endpoint({
    body: object({
      state: string().oneOf(['noted', 'sent', 'promised', 'fulfilled', 'declined']).required(),
      note: string().trim().max(2000),
      askedOf: string().trim().max(120),
    }).noUnknown(),
  }),
  'POST /api/gear/seen': endpoint({ answer: exactly({ cameras: count(), lenses: count() }) }),
  'POST /api/gear/offered': endpoint({
    body: photo,
    answer: exactly({
      editors: listOf(offered),
      /** those of the names that the studio holds */ held: listOf(exactly({ name: words(), id: id() })),
    }),
  }),
  'POST /api/gear/photos': endpoint({ body: photos, answer: exactly({ groups: listOf(asIs<PhotoGroup>()) }) }),
} as const;
