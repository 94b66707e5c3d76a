/** Statements by subject; each file has those of one. */

export * from './uploads';
export * from './files';
export * from './arrivals';
export * from './entries';
export * from './held';
export * from './packs';
export * from './undo';
