/** The first steps of a studio in words: what is done, where, and what it is good for. */

export type StepName = 'people' | 'shelf' | 'delivery' | 'bench' | 'station' | 'rollout';

export interface Step {
  name: StepName;
  done: boolean;
  /** whoever looks may do it */ mine: boolean;
}

interface Words {
  words: string;
  /** null where it is done on this page */ href: string | null;
  why: string;
}

export const wordsOfStep: Record<StepName, Words> = {
  people: {
    words: 'Invite the others',
    href: '/studio/people',
    why: 'Everybody signs in by a name of their own, so that it is known who approved, judged and rolled out what.',
  },
  shelf: {
    words: 'Make a shelf',
    href: null,
    why: 'A shelf holds what belongs together: the house looks, a supplier’s pack, the camera profiles.',
  },
  delivery: {
    words: 'Take a delivery in',
    href: '/intake',
    why: 'Drop a supplier’s ZIP, or a folder. You see what is in it, what you hold already and what is broken, before anything is kept.',
  },
  bench: {
    words: 'Judge on the bench',
    href: '/bench',
    why: 'Lay looks beside each other on the same frames, and keep which one was chosen.',
  },
  station: {
    words: 'Enrol a workstation',
    href: '/stations',
    why: 'A small agent on the workstation puts files where its editors look for them, and reports what they list.',
  },
  rollout: {
    words: 'Roll something out',
    href: '/rollouts/new',
    why: 'You see every file before it is written, and afterwards what each editor lists. All of it can be undone.',
  },
};
