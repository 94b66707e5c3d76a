/** Items by key, in the order in which the keys come. */
export { groupBy } from '@/core/lists';
