/** Stations and the editors on them. */
import { array, boolean, object, string } from 'yup';
import { groupNames } from '../records/groups';
import { uuid } from '../uuid';
import { count, endpoint, exactly, flag, id, listOf, texts, words } from './endpoint';

/** Editors with their versions, as "editor@version". */
const editorsThere = () =>
  array()
    .of(
      string()
        .required()
        .matches(/^[a-z0-9-]+@[0-9.]+$/, 'An editor is named as editor@version.'),
    )
    .max(50);

/** Paths of files at a station. */
const filesThere = () =>
  array()
    .of(string().required().max(1000))
    .min(1, 'Choose at least one file.')
    .max(500, 'At most 500 files at once.')
    .required();

export const stationEndpoints = {
  'POST /api/stations': endpoint({
    body: object({
      name: string().trim().required('A station needs a name.').max(120),
      system: string().oneOf(['macos', 'windows', 'linux']).required(),
      person: string().max(120).default(''),
      editors: editorsThere().default([]),
    }).noUnknown(),
    answer: exactly({ id: id(), code: words() }),
  }),
  /** a card in the reader of a workstation, whose agent writes it */
  'POST /api/stations/:id/card': endpoint({
    body: object({
      name: string().trim().required('A card needs a name.').max(120),
      camera: string()
        .required('Choose the camera.')
        .matches(/^[a-z0-9-]+@[0-9.]+$/, 'Choose the camera.'),
    }).noUnknown(),
    answer: exactly({ id: id() }),
  }),
  /** its name, whose it is, whether it is in use at all; and which editors came and went */
  'PATCH /api/stations/:id': endpoint({
    body: object({
      name: string().trim().required('A station needs a name.').max(120),
      person: string().trim().max(120).default(''),
      retired: boolean().default(false),
      /** left as they are where none are said */ groups: groupNames().optional(),
      came: editorsThere().default([]),
      went: editorsThere().default([]),
    }).noUnknown(),
  }),
  /** which of the studio's cameras are used there, by what came and went */
  'PATCH /api/stations/:id/cameras': endpoint({
    body: object({
      came: array().of(uuid().required()).max(500).default([]),
      went: array().of(uuid().required()).max(500).default([]),
    }).noUnknown(),
  }),
  'POST /api/stations/:id/editor': endpoint({
    body: object({
      editor: string().required().max(120),
      verb: string()
        .oneOf(['launch', 'quit', 'import'] as const, 'An editor can be launched, quit, or told to take in what waits.')
        .required('An editor can be launched, quit, or told to take in what waits.'),
    }).noUnknown(),
  }),
  'POST /api/stations/:id/code': endpoint({ answer: exactly({ code: words() }) }),
  /** its agent's token holds no longer */
  'DELETE /api/stations/:id/token': endpoint({}),
  /** what waits there as a file that is carried by hand; its bytes come back */
  'POST /api/stations/:id/carried': endpoint({}),
  /** the answer that was carried back is the body */
  'POST /api/stations/:id/answer': endpoint({
    answer: exactly({ operations: count(), /** what could not be taken */ left: texts() }),
  }),
  /** its agent shows a file in the file manager there */
  'POST /api/stations/:id/show': endpoint({ body: object({ path: string().required().max(1000) }).noUnknown() }),
  /** what became of what was to be shown last */
  'GET /api/stations/:id/show': endpoint({
    answer: exactly({ path: words(), /** why not; '' where it was shown */ fault: words(), told: flag() }),
  }),
  /** what becomes of files of ours that somebody changed or took away there */
  'POST /api/stations/:id/changed': endpoint({
    body: object({
      verb: string()
        .oneOf(['keep', 'put', 'take-in'] as const, 'Theirs can be kept, ours put there again, or theirs taken in.')
        .required('Theirs can be kept, ours put there again, or theirs taken in.'),
      paths: filesThere(),
    }).noUnknown(),
    answer: exactly({
      /** the plan by which ours goes there again */ rollout: id().nullable().defined(),
      /** by which theirs comes in */ arrival: id().nullable().defined(),
    }),
  }),
  /** plans that these go, of what lies there twice */
  'POST /api/stations/:id/duplicates': endpoint({
    body: object({ paths: filesThere() }).noUnknown(),
    answer: exactly({ rollout: id() }),
  }),
  /** plans that files of ours are taken away there */
  'POST /api/stations/:id/removal': endpoint({
    body: object({
      paths: filesThere(),
    }).noUnknown(),
    answer: exactly({ rollout: id() }),
  }),
  /** files that are not ours are told of no more until somebody changes them, or told of again */
  'POST /api/stations/:id/ignored': endpoint({
    body: object({
      verb: string()
        .oneOf(['ignore', 'tell'] as const, 'Files are ignored, or told of again.')
        .required('Files are ignored, or told of again.'),
      paths: filesThere(),
    }).noUnknown(),
  }),
  'POST /api/stations/:id/found': endpoint({ answer: exactly({ arrival: id() }) }),
  /** a descriptor's JSON is the body */
  'POST /api/editors': endpoint({ answer: exactly({ id: id(), editor: words(), version: words() }) }),
  /** a descriptor's JSON is the body; which items in its preset language would read otherwise by it */
  'POST /api/editors/effect': endpoint({
    answer: exactly({
      /** how many items there are in that language */ held: count(),
      items: listOf(
        exactly({
          itemId: id(),
          versionId: id(),
          title: words(),
          gained: texts(),
          lost: texts(),
          changed: texts(),
          /** properties that nobody knows, before and after */ unknown: listOf(count()),
          fault: words(),
        }),
      ),
    }),
  }),
  /** the lead takes or declines what somebody proposed; `outside` allows places outside the editor's own folders */
  'POST /api/proposals/:id': endpoint({
    body: object({
      verb: string()
        .oneOf(['take', 'decline'] as const)
        .required('A proposal is taken or declined.'),
      outside: boolean().default(false),
    }).noUnknown(),
  }),
} as const;
