/** What is done to a version: approved, converted, derived, its encoding said. */
import { primaryNames, rangeNames, referredNames, transferNames, whiteNames } from '../look/encoding-names';
import { array, number, object, string } from 'yup';
import { asIs, count, endpoint, exactly, figure, id, listOf, words } from './endpoint';

/** The forms that a look can be written in. */
export const LOOK_FORMS = ['cube', 'clf', 'icc-link', 'icc-abstract'] as const;
/** What can be made of a camera profile. */
export const PROFILE_FORMS = [
  'icc-input',
  'without-look',
  'without-map',
  'straight',
  'editor-curve',
  'first-light',
  'second-light',
  'other-camera',
] as const;

const title = () => string().trim().max(200, 'A title has at most 200 signs.');
/** Of a table, on each axis. */
const points = () => number().integer().min(2).max(129);

const derivation = object({
  form: string()
    .oneOf([...LOOK_FORMS, ...PROFILE_FORMS], 'That is no form of an item.')
    .required(),
  title: title().default(''),
  points: points().default(33),
  kelvin: number()
    .typeError('The light is a number of kelvin.')
    .min(2000, 'The light is at least 2,000 K.')
    .max(50000, 'The light is at most 50,000 K.')
    .default(5000),
  camera: string()
    .trim()
    .max(200, 'A camera’s name has at most 200 signs.')
    .default('')
    .when('form', ([form], field) => (form === 'other-camera' ? field.required('Say for which camera.') : field)),
}).noUnknown();

const coding = {
  primaries: string().oneOf(primaryNames).required(),
  transfer: string().oneOf(transferNames).required(),
  range: string().oneOf(rangeNames).required(),
};
/** What a look's values mean, as a person says it. */
export const encoding = object({
  ...coding,
  output: object(coding).noUnknown().nullable().default(null),
  referred: string().oneOf(referredNames).required(),
  white: string().oneOf(whiteNames).required(),
}).noUnknown();

const conversion = object({
  size: points().default(33),
  settings: array().of(string().required()),
  title: title(),
}).noUnknown();

/** Differences over many colors, in ΔE00. */
const residual = exactly({ maxDeltaE: figure(), p95DeltaE: figure(), meanDeltaE: figure() });

const setting = exactly({ setting: words(), title: words(), family: words(), value: asIs<unknown>(), unit: words() });
const leftOut = exactly({ setting: words(), title: words(), class: words(), reason: words() });

const itemMade = exactly({ itemId: id(), versionId: id() });

export const versionEndpoints = {
  'GET /api/versions/:id/convert': endpoint({
    answer: exactly({
      carried: listOf(setting),
      left: listOf(leftOut),
      unknown: asIs<Record<string, string>>(),
      residual,
    }),
  }),
  'POST /api/versions/:id/convert': endpoint({ body: conversion, answer: itemMade }),
  'POST /api/versions/:id/approve': endpoint({}),
  'POST /api/versions/:id/retire': endpoint({}),
  'POST /api/versions/:id/encoding': endpoint({ body: encoding }),
  'POST /api/versions/:id/derive': endpoint({ body: derivation, answer: itemMade }),
  /** what would be made, and its error */
  'POST /api/versions/:id/derive/preview': endpoint({
    body: derivation,
    answer: exactly({
      said: words(),
      bytes: count(),
      /** null where nothing is approximated */ residual: residual.nullable(),
    }),
  }),
} as const;
