/** Pages of docs/ that are written from the code. */
import { documentation as settings } from '@/core/preset/settings';
import { documentation as threeWay } from '@/core/sync/three-way';
import type { Verb } from './main';

export const verbs: Record<string, Verb> = { settings: async () => settings(), 'three-way': async () => threeWay() };
