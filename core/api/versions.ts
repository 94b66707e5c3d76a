/** What is done to a version: approved, converted, derived, its encoding said. */
import { primaryNames, rangeNames, referredNames, transferNames, whiteNames } from '../look/encoding-names';
import type { Inspection } from '../look/inspect';
import { array, object, string } from 'yup';
import {
  aboveField,
  cameraField,
  formField,
  frameField,
  kelvinField,
  pointsField,
  titleField,
} from '../conversion/recipe';
import { asIs, count, endpoint, exactly, figure, id, listOf, texts, words } from './endpoint';

const title = titleField;

const derivation = object({
  form: formField().required(),
  title: title().default(''),
  points: pointsField().default(33),
  kelvin: kelvinField().default(5000),
  camera: cameraField(),
  frame: frameField(),
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
  size: pointsField().default(33),
  above: aboveField(),
  settings: array().of(string().required()),
  title: title(),
}).noUnknown();

/** Differences over many colors, in ΔE00. */
const residual = exactly({ maxDeltaE: figure(), p95DeltaE: figure(), meanDeltaE: figure() });

const setting = exactly({ setting: words(), title: words(), family: words(), value: asIs<unknown>(), unit: words() });
const leftOut = exactly({ setting: words(), title: words(), class: words(), reason: words() });

const itemMade = exactly({ itemId: id(), versionId: id() });

export const versionEndpoints = {
  /** of a preset: what its pictures here do not show, by the titles of settings and the names of looks that are not held */
  'GET /api/versions/:id/shown': endpoint({ answer: exactly({ notShown: texts(), missing: texts() }) }),
  /** the health of a look, or of the table that a preset makes; null for items of other kinds */
  'GET /api/versions/:id/inspection': endpoint({ answer: exactly({ inspection: asIs<Inspection | null>() }) }),
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
