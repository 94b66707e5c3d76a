/** Statements by subject; each file has those of one. */

export * from './saved';
export * from './candidates';
export * from './verdicts';
