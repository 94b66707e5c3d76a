/** How long the next try of a password has to wait, by how many have failed. */

/** What a try is counted against. */
export interface Counted {
  subject: string;
  /** so many tries at once, before there is any wait */ free: number;
}

const LONGEST_SECONDS = 15 * 60;

/** Seconds after the last failed try: none while some are free, then 2, 4, 8 … up to a quarter of an hour. */
export const delayAfter = (failures: number, free: number): number =>
  failures < free ? 0 : Math.min(LONGEST_SECONDS, 2 ** (failures - free + 1));

/**
 * An account from one network; a network, whatever the accounts; and an account from anywhere, so that many networks do
 * not try it together. The last is not counted where the person is known already: others' tries never keep a person out
 * of the desk where he or she works.
 */
export const countedFor = (account: string, network: string, known: boolean): Counted[] => [
  { subject: `account:${account} from:${network}`, free: 5 },
  { subject: `from:${network}`, free: 30 },
  ...(known ? [] : [{ subject: `account:${account}`, free: 40 }]),
];
