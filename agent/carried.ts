/**
 * A file that was carried here by hand takes the place of the server: what the agent is told stands in it, and what it would
 * say is kept for an answer that is carried back (core/sync/carried.ts).
 */
import { createHash, createHmac, createPublicKey, verify } from 'node:crypto';
import { readFile, rename, stat, writeFile } from 'node:fs/promises';
import { zipSync } from 'fflate';
import {
  ANSWER,
  CARRIED,
  CARRIED_FORM,
  carriedWords,
  contentName,
  membersOf,
  MOST_ZIP,
  SEAL,
  SIGNATURE,
  type Carried,
  type CarriedAnswer,
  type Members,
  type Saying,
} from '@/core/sync/carried';
import {
  MOST_PARTS,
  PART_FILES,
  planSchema,
  type Instructions,
  type InventoryFile,
  type OperationResult,
  type Plan,
  type Report,
  type ReportAnswer,
} from '@/core/sync/protocol';
import { ServerError } from './faults';
import { remember, remembered, type Enrolment } from './own-files';
import type { RoundServer } from './rounds';

/** Why a carried file is not taken. */
export class NotTaken extends Error {}

async function membersIn(file: string): Promise<Members> {
  const found = await stat(file).catch(() => null);
  if (!found?.isFile()) throw new NotTaken(`there is no file ${file}`);
  if (found.size > MOST_ZIP) throw new NotTaken(`${file} is larger than anything that Etagere makes`);
  try {
    return membersOf(await readFile(file));
  } catch {
    throw new NotTaken(`${file} is no ZIP, or it was cut off on the way: carry it here again`);
  }
}

function isSigned(json: Uint8Array, signature: Uint8Array, key: string): boolean {
  const publicKey = createPublicKey({ key: Buffer.from(key, 'base64'), format: 'der', type: 'spki' });
  const bytes = Buffer.from(new TextDecoder().decode(signature).trim(), 'base64');
  return verify(null, carriedWords(json), publicKey, bytes);
}

/** What an agent remembers of the files that it has carried out. */
interface LastCarried {
  id: string;
  made: string;
  /** so many answers were given to it */ answers: number;
}
const LAST = 'carried.json';

/** Null where it is no JSON: its signature is looked at with what it says. */
function carriedIn(json: Uint8Array): Carried | null {
  try {
    return JSON.parse(new TextDecoder().decode(json)) as Carried | null;
  } catch {
    return null;
  }
}

export interface CarriedFile {
  carried: Carried;
  members: Members;
}

/**
 * Reads a carried file and checks that it is for this station, of this server, and none of before.
 * @param own null where no agent is enrolled here: a file that enrols it is believed then, as a code would be
 */
export async function openCarried(file: string, own: Enrolment | null, state: string): Promise<CarriedFile> {
  const members = await membersIn(file);
  const [json, signature] = [members[CARRIED], members[SIGNATURE]];
  if (!json || !signature) throw new NotTaken(`${file} is no file that Etagere made to be carried`);
  const carried = carriedIn(json);
  if (!carried) throw new NotTaken(`${file} is damaged: carry it here again`);
  if (carried.form !== CARRIED_FORM)
    throw new NotTaken('it was made by another Etagere: take the agent out of the file');
  if (!own && !carried.enrolment)
    throw new NotTaken('no agent is enrolled here, and the file is for one that is: make a new one');
  const key = own ? own.updateKey : carried.enrolment?.updateKey;
  if (!key) throw new NotTaken('this agent was enrolled before files were carried: enrol it anew');
  if (own && own.station !== carried.station)
    throw new NotTaken(`it is for ${carried.name}, and this is the agent of ${own.name}`);
  if (!isSigned(json, signature, key))
    throw new NotTaken('it is not signed by the server that this agent belongs to, or was changed on the way');
  const last = await remembered<LastCarried>(state, LAST);
  if (last && last.made > carried.made)
    throw new NotTaken(`a newer one, of ${last.made}, was carried out here already`);
  return { carried, members };
}

/** As the agent keeps it when a file enrols it. */
export function enrolmentOf({ station, name, enrolment }: Carried): Enrolment | null {
  if (!enrolment) return null;
  const { server, token, system, updateKey } = enrolment;
  return { server, token, station, name, system, updateKey };
}

export class CarriedServer implements RoundServer {
  private readonly said: Saying[] = [];
  private readonly sent: Members = {};
  private readonly digests = new Set<string>();
  /** Plans of which the results are told. */
  private readonly over = new Set<string>();
  private readonly seen = new Set<string>();

  constructor(private readonly file: CarriedFile) {}

  instructions = async (): Promise<Instructions> => this.file.carried.instructions;

  async sendFiles(digest: string, files: readonly InventoryFile[]): Promise<number> {
    const parts = Math.min(MOST_PARTS, Math.ceil(files.length / PART_FILES));
    for (let part = 0; part < parts; part++) {
      const some = files.slice(part * PART_FILES, (part + 1) * PART_FILES);
      this.said.push({ says: 'files', part: { digest, part, files: some } });
    }
    return parts;
  }

  report = async (report: Report): Promise<ReportAnswer> => {
    const isWhole = report.files !== null || report.parts !== undefined;
    if (!isWhole && !this.digests.has(report.digest)) return { need: 'files' };
    this.digests.add(report.digest);
    this.said.push({ says: 'report', report });
    const isOurs = report.waiting === null || report.waiting === this.file.carried.plan?.id;
    return { need: null, ...(isOurs ? {} : { drop: true }) };
  };

  async plan(): Promise<Plan | null> {
    const { plan } = this.file.carried;
    if (plan === null || this.over.has(plan.id)) return null;
    return planSchema.validateSync(plan, { strict: true }) as unknown as Plan;
  }

  results = async (plan: string, results: OperationResult[]): Promise<void> => {
    this.over.add(plan);
    this.said.push({ says: 'results', plan, results });
  };

  fetchContent = async (sha256: string, to: string): Promise<void> => {
    const bytes = this.file.members[contentName(sha256)];
    if (!bytes) throw new ServerError('the carried file does not hold its contents: make a new one');
    await writeFile(to, bytes);
  };

  private keep(bytes: Buffer): string {
    const sha256 = createHash('sha256').update(bytes).digest('hex');
    this.sent[contentName(sha256)] = bytes;
    return sha256;
  }

  sendContent = async (sha256: string, path: string, bytes: Buffer): Promise<void> => {
    // each round asks for the same
    if (this.seen.has(path)) return;
    this.seen.add(path);
    this.keep(bytes);
    this.said.push({ says: 'content', sha256, path });
  };
  async sendPicture(id: string, bytes: Buffer): Promise<void> {
    this.seen.add(id);
    this.said.push({ says: 'picture', id, sha256: this.keep(bytes) });
  }
  sendPictureFault = async (id: string, message: string): Promise<void> => {
    this.seen.add(id);
    this.said.push({ says: 'picture fault', id, message });
  };

  /** Nobody who asked looks at it any more by the time that a file has come there. */
  tellShown = async (): Promise<void> => {};

  /** Whether an editor was asked for a picture and has not answered. */
  get waitsForPictures(): boolean {
    const { pictures = [] } = this.file.carried.instructions;
    return pictures.some(({ asked }) => asked.some(({ id }) => !this.seen.has(id)));
  }

  /** What became of the operations. */
  get outcome(): { done: number; left: string[] } {
    const results = this.said.flatMap((one) => (one.says === 'results' ? one.results : []));
    const left = results.filter(({ outcome }) => outcome !== 'done');
    return { done: results.length - left.length, left: left.map(({ message }) => message) };
  }

  /** Writes what is to be carried back, whole or not at all. */
  async writeAnswer(to: string, token: string, state: string): Promise<void> {
    const { id, station, made } = this.file.carried;
    const last = await remembered<LastCarried>(state, LAST);
    const number = last?.id === id ? last.answers + 1 : 1;
    const answer: CarriedAnswer = { form: CARRIED_FORM, carried: id, station, number, said: this.said };
    const json = Buffer.from(JSON.stringify(answer));
    const key = createHash('sha256').update(token).digest();
    const seal = createHmac('sha256', key).update(json).digest('hex');
    // before it can be given to anybody, so that no two answers bear one number
    await remember(state, LAST, { id, made, answers: number } satisfies LastCarried);
    await writeFile(`${to}.part`, zipSync({ [ANSWER]: json, [SEAL]: Buffer.from(`${seal}\n`), ...this.sent }));
    await rename(`${to}.part`, to);
  }
}
