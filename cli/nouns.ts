/** The nouns of the command line, in the order in which help tells them. */
import type { Alone, Noun } from './verb';

export const nouns: Record<string, Noun> = {
  look: { about: 'looks: tables, chains, ICC links', verbs: () => import('./look').then((m) => m.verbs) },
  camera: { about: 'camera profiles of DNG', verbs: () => import('./camera').then((m) => m.verbs) },
  icc: { about: 'ICC profiles', verbs: () => import('./icc').then((m) => m.verbs) },
  lens: {
    about: 'lens databases, and what frames carry of lenses',
    verbs: () => import('./lens').then((m) => m.verbs),
  },
  preset: { about: 'presets of editors, and our own settings', verbs: () => import('./preset').then((m) => m.verbs) },
  chart: { about: 'charts that go through an editor', verbs: () => import('./chart').then((m) => m.verbs) },
  pack: { about: 'what suppliers send', verbs: () => import('./pack').then((m) => m.verbs) },
  station: { about: 'workstations and their editors', verbs: () => import('./station').then((m) => m.verbs) },
  people: { about: 'who may sign in', verbs: () => import('./admin').then((m) => m.people) },
  db: { about: 'the database', verbs: () => import('./admin').then((m) => m.db) },
  demo: { about: 'the demo studio', verbs: () => import('./admin').then((m) => m.demo) },
  agent: { about: 'the program that runs at a workstation', verbs: () => import('./admin').then((m) => m.agent) },
  docs: { about: 'pages of docs/ that are written from the code', verbs: () => import('./docs').then((m) => m.verbs) },
};

/** What is done to the whole, and so needs no noun. */
export const alone: Record<string, Alone> = {
  backup: { about: 'everything as one file', verb: () => import('./backup').then((m) => m.backupVerb) },
  restore: {
    about: 'a backup, in the place of what is there',
    verb: () => import('./backup').then((m) => m.restoreVerb),
  },
  completion: {
    about: 'completion for a shell',
    verb: () => import('./completion').then((m) => m.completionOf(nouns, alone)),
  },
};
