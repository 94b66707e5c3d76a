/** Charts that go through an editor: made, given back, read, and made into a look. */
import { array, number, object, string } from 'yup';
import { chartFiles, sheetKinds, sizesOf, type SheetKind } from '../editor-chart/steps';
import { titleField } from '../conversion/recipe';
import { uuid } from '../uuid';
import { endpoint, id, made } from './endpoint';

export const newChart = object({
  editor: string()
    .trim()
    .required('Say which editor, with its version.')
    .max(80, 'An editor’s name has at most 80 signs.'),
  what: string().trim().max(200, 'At most 200 signs.').default(''),
  /** the preset that is switched on, where the library holds it: its item, and which form of it if not the newest */
  preset: uuid().nullable().default(null),
  form: uuid().nullable().default(null),
  size: number()
    .typeError('The points of a chart are a number.')
    .default(33)
    .when('kind', ([kind], field) => {
      const sizes = sizesOf(kind as SheetKind);
      return field.oneOf([...sizes], `Choose ${sizes.join(', ')} points.`);
    }),
  kind: string().oneOf(sheetKinds, 'Choose 8 bits, 16 bits, camera data or plain.').default('16 bits'),
  file: string().oneOf(chartFiles, 'Choose PNG or TIFF.').default('tiff'),
  /** for camera data: the item of the profile by which it is developed */
  profile: uuid()
    .nullable()
    .default(null)
    .when('kind', ([kind], field) =>
      kind === 'camera data' ? field.required('Choose the camera profile that the chart is made for.') : field,
    ),
}).noUnknown();

export const editorChartEndpoints = {
  'POST /api/editor-charts': endpoint({ body: newChart, answer: made }),
  /** one that nothing was read from */
  'DELETE /api/editor-charts/:id': endpoint({}),
  /** the picture that an editor exported, as bytes */
  'POST /api/editor-charts/:id/readings': endpoint({ answer: made }),
  'DELETE /api/chart-readings/:id': endpoint({}),
  /** a draft of the chosen readings, averaged */
  'POST /api/editor-charts/:id/look': endpoint({
    body: object({
      title: titleField().required('Give the look a title.'),
      readings: array()
        .of(uuid().required())
        .min(1, 'Choose at least one reading.')
        .max(20, 'Choose at most 20 readings.')
        .required(),
      /** where it stands, where no preset says */ shelf: uuid().nullable().default(null),
    }).noUnknown(),
    answer: object({ itemId: id(), versionId: id() }).noUnknown().required(),
  }),
};
