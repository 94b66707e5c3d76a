/** By what a search can be narrowed, in the order in which it is offered. */
export const facetKeys = [
  'kind',
  'status',
  'supplier',
  'camera',
  'tag',
  'pack',
  'release',
  'format',
  'origin',
  'licence',
  'bound',
  'result',
  'input',
  'stale',
  'assumed',
] as const;

/** All that a kept search may hold. */
export const searchKeys: readonly string[] = ['q', 'ribbon', 'recent', 'fresh', 'sort', 'down', ...facetKeys];
