/** The screens, and what one goes to a screen for: as the navigation and the palette offer them. */

export interface Screen {
  href: string;
  name: string;
  /** the beginning of other addresses that belong to it */ also?: string;
  /** the action that whoever sees it may do; none for everybody */ needs?: string;
}

/** By what belongs together. */
export const screens: readonly (readonly Screen[])[] = [
  [
    { href: '/intake', name: 'Intake', needs: 'arrival.read' },
    { href: '/shelves', name: 'Shelves', also: '/items' },
    { href: '/bench', name: 'Bench' },
    { href: '/convert', name: 'Conversions', needs: 'item.convert' },
    { href: '/packs', name: 'Packs' },
    { href: '/copies', name: 'Copies' },
    { href: '/coverage', name: 'Coverage' },
  ],
  [
    { href: '/stations', name: 'Stations' },
    { href: '/rollouts', name: 'Rollouts' },
  ],
  [
    { href: '/ribbons', name: 'Ribbons' },
    { href: '/activity', name: 'Activity', needs: 'activity.view' },
    { href: '/studio', name: 'Studio' },
  ],
];

/** What one comes for, in one step from anywhere. */
export const tasks: readonly Screen[] = [
  { href: '/intake', name: 'Take files in', needs: 'arrival.make' },
  { href: '/shelves?ribbon=any', name: 'Show what has a ribbon' },
  { href: '/shelves?fresh=1', name: 'Show what is new to me' },
  { href: '/shelves?status=draft', name: 'Show drafts', needs: 'item.approve' },
  { href: '/shelves?stale=yes', name: 'Show what is stale', needs: 'item.convert' },
  { href: '/shelves?archived=1', name: 'Show the archive' },
  { href: '/convert/charts', name: 'Make a chart for an editor, give one back', needs: 'item.convert' },
  { href: '/convert/match', name: 'Match one camera to another', needs: 'item.convert' },
  { href: '/rollouts/new', name: 'Plan a rollout', needs: 'rollout.plan' },
  { href: '/stations/matrix', name: 'See who has what' },
  { href: '/stations/orders', name: 'See what stations follow' },
  { href: '/stations/favorites', name: 'Compare favorites at the stations' },
  { href: '/stations/opening', name: 'Compare and set opening rules' },
  { href: '/studio/people', name: 'See who may sign in', needs: 'person.view' },
  { href: '/guide', name: 'Five minutes with Etagere' },
  { href: '/account', name: 'Change my password, end my sessions' },
];

/** The actions that are asked about. */
export const asked: readonly string[] = [...new Set([...screens.flat(), ...tasks].flatMap(({ needs }) => needs ?? []))];

export const openTo =
  (may: readonly string[]) =>
  ({ needs }: Screen): boolean =>
    needs === undefined || may.includes(needs);
