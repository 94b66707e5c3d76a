/** Statements by subject; each file has those of one. */

export * from './rows';
export * from './shelves';
export * from './items';
export * from './versions';
