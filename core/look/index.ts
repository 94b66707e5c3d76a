/** The door to looks: reading, sampling, measuring and writing tables. */
export * from './look';
export * from './sample';
export * from './apply';
export * from './residual';
export * from './resample';
export * from './selvedge';
export { readCube, writeCube, writeCubeBytes } from './cube';
export { writeClf } from './clf-write';
export { readProgram, tableOfProgram, type Program } from './program';
