/** Figures of the whole studio, for whoever watches it: one statement. */
import { pool } from '../db/pool';
import { one } from '../db/query';
import * as q from './queries';

export type { StudioFigures } from './queries';

export const studioFigures = (): Promise<q.StudioFigures> => one<q.StudioFigures>(pool(), q.STUDIO_FIGURES);
