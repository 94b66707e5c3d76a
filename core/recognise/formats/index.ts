/** The formats that are known, in the order in which a file is tried. */
import type { Format } from '../recognised';
import { cgats } from './cgats';
import { cube } from './cube';
import { dcp } from './dcp';
import { editorLook } from './editor-look';
import { icc } from './icc';
import { ini } from './ini';
import { json } from './json';
import { picture } from './picture';
import { signatures } from './signatures';
import { xml } from './xml';
import { xmp } from './xmp';

export const formats: readonly Format[] = [cube, icc, dcp, picture, editorLook, signatures, xmp, xml, json, ini, cgats];
