/** Opening a preset file in its container, for reading or for writing. */
import { openIni } from './ini';
import { openJson } from './json';
import { documentOf, type Container, type Form, type OpenPreset, type StepDocument } from './open-preset';
import { openXml } from './xml';
import { openXmp } from './xmp';

export { formOfPacket } from './xmp';

export { containers, documentOf, WHOLE } from './open-preset';
export type { About, Container, Form, OpenPreset, OpenStep, Step, StepDocument, WrittenValue } from './open-preset';

const openers: Record<Container, (bytes: Uint8Array, form?: Form) => OpenPreset> = {
  xmp: openXmp,
  ini: openIni,
  xml: openXml,
  json: openJson,
};

/** Throws a Problem with the place where the bytes are none of that container. */
export const openPreset = (container: Container, bytes: Uint8Array, form?: Form): OpenPreset =>
  openers[container](bytes, form);

export const readSteps = (container: Container, bytes: Uint8Array, form?: Form): StepDocument =>
  documentOf(openPreset(container, bytes, form));
