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

const derivation = object({
  form: string()
    .oneOf([...LOOK_FORMS, ...PROFILE_FORMS], 'That is no form of an item.')
    .required(),
  title: string().trim().max(200).default(''),
  points: number().integer().min(2).max(129).default(33),
  kelvin: number().min(2000).max(50000).default(5000),
  camera: string().trim().max(200).default(''),
}).noUnknown();

const coding = {
  primaries: string().oneOf(primaryNames).required(),
  transfer: string().oneOf(transferNames).required(),
  range: string().oneOf(rangeNames).required(),
};
const encoding = object({
  ...coding,
  output: object(coding).noUnknown().nullable().default(null),
  referred: string().oneOf(referredNames).required(),
  white: string().oneOf(whiteNames).required(),
}).noUnknown();

const conversion = object({
  size: number().integer().min(2).max(129).default(33),
  settings: array().of(string().required()),
  title: string().trim().max(200),
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
