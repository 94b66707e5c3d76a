/** Statements by subject; each file has those of one. */

export * from './pages';
export * from './counts';
export * from './shelves';
export * from './planner';
