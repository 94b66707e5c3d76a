/** Any look's file as a table: its own, or, for corrections and chains, one of 33 points that samples it. */
import type { Look } from './look';
import { readProgram, tableOfProgram } from './program';

export const readLook = (bytes: Uint8Array): Look => tableOfProgram(readProgram(bytes));
