/** Rounds of the agent: it reports, finishes what is open or takes a plan, carries it out, says so, and reports again. */
import { randomUUID } from 'node:crypto';
import { hostname } from 'node:os';
import {
  AGENT_VERSION,
  PART_FILES,
  type Instructions,
  type InventoryFile,
  type Report,
  type ReportAnswer,
} from '@/core/sync/protocol';
import { Applier, type OpenPlan } from './apply';
import { findEditors, readIndexes, readListings, takeInventory } from './inventory';
import { tell } from './log';
import { remember } from './own-files';
import type { AgentSystem } from './options';
import { askForPictures } from './pictures';
import { showAsked } from './reveal';
import { ServerError, type Server } from './server';
import { sendWanted } from './wanted';
import { tellReported } from './watch';

/** The server, or what stands for it where there is no way to one. */
export type RoundServer = Pick<
  Server,
  | 'instructions'
  | 'sendFiles'
  | 'report'
  | 'plan'
  | 'results'
  | 'fetchContent'
  | 'sendContent'
  | 'sendPicture'
  | 'sendPictureFault'
  | 'tellShown'
>;

interface Own {
  root: string;
  system: AgentSystem;
  /** the file manager that was said for it */ fileManager?: string | undefined;
  /** the folder of the agent's own files */ state: string;
}

/** The editor that would write over a path when it quits, where it runs. */
export const runningAt =
  (root: string, told: Instructions) =>
  async (path: string): Promise<string | null> => {
    const first = told.places.find((place) => path.startsWith(`${place.path}/`))?.quitFirst;
    if (!first) return null;
    const [list] = await readListings(root, [{ editor: first.title, path: first.listing }]);
    return list?.running ? first.title : null;
  };

export const placesOf = (told: Instructions): string[] => [...told.places.map(({ path }) => path), ...told.indexes];

/** A report with its files: they come along where they are few, and else in parts ahead of it. */
async function reportFiles(
  server: RoundServer,
  body: Omit<Report, 'files' | 'parts'>,
  files: InventoryFile[],
): Promise<ReportAnswer> {
  if (files.length <= PART_FILES) return server.report({ ...body, files });
  const parts = await server.sendFiles(body.digest, files);
  return server.report({ ...body, files: null, parts });
}

export class Rounds {
  /** What the server said last; null before the first round. */
  told: Instructions | null = null;
  /** Why the server's program could not be taken. */
  updateFault: string | null = null;
  /** Tells this start of the agent from that of another with the same token. */
  private readonly run = randomUUID();
  private lastDigest = '';

  constructor(private readonly own: Own) {}

  /** One round. Resolves to whether there may be more to do at once. */
  async round(server: RoundServer): Promise<boolean> {
    const { root, state, system, fileManager } = this.own;
    const told: Instructions = await server.instructions();
    this.told = told;
    await remember(state, 'instructions.json', told);
    const applier = new Applier({
      root,
      state,
      places: placesOf(told),
      fetch: (sha, to) => server.fetchContent(sha, to),
      running: runningAt(root, told),
    });
    const open = await this.stillOpen(server, applier, told);
    await sendWanted(server, root, told);
    // pictures hold no plan up, whatever goes wrong with them
    const faults = await askForPictures({ server, root, state }, told).catch((error: unknown) => [
      (error as Error).message,
    ]);
    for (const fault of faults) tell(fault);
    await showAsked({ server, root, system, own: fileManager }, told);
    const plan = open ? null : await server.plan();
    if (!open && !plan) return false;
    const { plan: done, results, later } = await applier.apply(plan);
    if (results.length) {
      await server.results(done.id, results);
      await remember(state, 'last.json', { plan: done, results });
    }
    await applier.close();
    for (const { message } of later) tell(`later: ${message}`);
    await this.report(server, told, null);
    // what is only waited for is asked for again after a pause
    return results.length > 0;
  }

  /** Reports, and answers with the plan that is under way; one that the server does not wait for is left as it is. */
  private async stillOpen(server: RoundServer, applier: Applier, told: Instructions): Promise<OpenPlan | null> {
    const open = await applier.open();
    const { drop } = await this.report(server, told, open?.plan.id ?? null);
    tellReported();
    if (!open || !drop) return open;
    tell('the server does not wait for the plan that is under way; it is left as it is');
    await this.tellOfDropped(server, open);
    await applier.drop();
    return null;
  }

  /** What was done of a plan before it was dropped; a server that does not know the plan cannot take it, and need not. */
  private async tellOfDropped(server: RoundServer, { plan, results }: OpenPlan): Promise<void> {
    try {
      if (!results.length) return;
      await server.results(plan.id, results);
      await remember(this.own.state, 'last.json', { plan, results });
    } catch (error) {
      if (!(error instanceof ServerError)) throw error;
    }
  }

  private async report(server: RoundServer, told: Instructions, waiting: string | null): Promise<ReportAnswer> {
    const { root, state } = this.own;
    const { files, digest } = await takeInventory(root, state, placesOf(told));
    const body = {
      agentVersion: AGENT_VERSION,
      digest,
      listings: await readListings(root, told.listings),
      indexes: await readIndexes(root, told.indexes),
      waiting,
      run: this.run,
      host: hostname(),
      ...(this.updateFault ? { updateFault: this.updateFault } : {}),
      ...(told.lookedFor ? { found: await findEditors(root, told.lookedFor) } : {}),
    };
    // many files are asked for first: after a restart of the agent alone they are known there
    const isKnown = digest === this.lastDigest || files.length > PART_FILES;
    let answer = isKnown ? await server.report({ ...body, files: null }) : null;
    if (!answer || answer.need === 'files') answer = await reportFiles(server, body, files);
    this.lastDigest = digest;
    return answer;
  }
}
