/**
 * All that a browser may ask of the server as JSON, by method and path. Screens know the types alone (`import type`), so
 * that no schema comes into a page that checks no form.
 */
import type { InferType } from 'yup';
import { arrivalEndpoints } from './arrivals';
import { benchEndpoints } from './bench';
import { cameraMatchEndpoints } from './camera-match';
import { conversionEndpoints } from './conversions';
import { editorChartEndpoints } from './editor-charts';
import { favoritesEndpoints } from './favorites';
import { frameEndpoints } from './frames';
import { gearEndpoints } from './gear';
import { itemEndpoints } from './items';
import { openingEndpoints } from './opening';
import { orderEndpoints } from './orders';
import { packEndpoints } from './packs';
import { peopleEndpoints } from './people';
import { presetFormEndpoints } from './preset-forms';
import { referenceEndpoints } from './references';
import { rolloutEndpoints } from './rollouts';
import { searchEndpoints } from './search';
import { shelfEndpoints } from './shelves';
import { sightingEndpoints } from './sightings';
import { stationEndpoints } from './stations';
import { studioEndpoints } from './studio';
import { versionEndpoints } from './versions';

export const endpoints = {
  ...arrivalEndpoints,
  ...benchEndpoints,
  ...cameraMatchEndpoints,
  ...conversionEndpoints,
  ...editorChartEndpoints,
  ...favoritesEndpoints,
  ...frameEndpoints,
  ...gearEndpoints,
  ...itemEndpoints,
  ...openingEndpoints,
  ...orderEndpoints,
  ...packEndpoints,
  ...peopleEndpoints,
  ...presetFormEndpoints,
  ...referenceEndpoints,
  ...rolloutEndpoints,
  ...searchEndpoints,
  ...shelfEndpoints,
  ...sightingEndpoints,
  ...stationEndpoints,
  ...studioEndpoints,
  ...versionEndpoints,
} as const;

export type Endpoints = typeof endpoints;
/** A method and a path, such as `POST /api/rollouts/:id`. */
export type EndpointName = keyof Endpoints;

/** What may be left out, at every depth: a field that has a default, which a schema does not tell to the compiler. */
type Sent<T> = T extends readonly (infer Item)[]
  ? readonly Sent<Item>[]
  : T extends object
    ? { [Key in keyof T]?: Sent<T[Key]> }
    : T;

/** What is sent; what is missing without a default is refused by the service. */
export type BodyOf<Name extends EndpointName> = Sent<InferType<Endpoints[Name]['body']>>;
export type AnswerOf<Name extends EndpointName> = InferType<Endpoints[Name]['answer']>;
