/**
 * Two agents with one token, as after a disk was copied: an agent draws a number when it starts, so one that reports again
 * after another has come cannot be a restart of it.
 */

/** A start of an agent. */
export interface AgentRun {
  run: string;
  host: string;
}
export interface Doubled {
  hosts: string[];
  at: string;
}

const KEPT = 6;
/** So long after the last sign of it, two agents are not told of any more. */
const TOLD_FOR_MS = 60 * 60_000;

/** The runs with this one in front, and what is told when an earlier one has come back. */
export function seeRun(
  known: readonly AgentRun[],
  run: AgentRun,
  now: Date,
): { runs: AgentRun[]; doubled: Doubled | null } {
  const [latest] = known;
  const returned = latest !== undefined && latest.run !== run.run && known.some((one) => one.run === run.run);
  return {
    runs: [run, ...known.filter((one) => one.run !== run.run)].slice(0, KEPT),
    doubled: returned ? { hosts: [...new Set([run.host, latest.host])], at: now.toISOString() } : null,
  };
}

/** Whether it is still to be told. */
export const isTold = (doubled: Doubled | null, now: Date): doubled is Doubled =>
  doubled !== null && now.getTime() - new Date(doubled.at).getTime() < TOLD_FOR_MS;
