/**
 * Asks editors for pictures: lays a picture and what is to be done with it into the folder in which its editor looks, and
 * sends what that made of it. All that is under way stands in that folder, so a killed agent goes on with it.
 */
import { constants } from 'node:fs';
import { lstat, mkdir, open, readdir, readFile, rename, rm } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { isInside, MOST_PICTURE, type Instructions, type PicturesAsked } from '@/core/sync/protocol';
import { ServerError } from './faults';
import { hashFile, inside, Unsafe } from './files';
import type { Server } from './server';

type Asked = PicturesAsked['asked'][number];
type PictureServer = Pick<Server, 'fetchContent' | 'sendPicture' | 'sendPictureFault'>;

interface Context {
  server: PictureServer;
  root: string;
  /** the agent's own folder */ state: string;
  /** Called before each deed with its name; tests end the process here. */ step?(name: string): void;
}

const ID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}/;
const ENDING = /^(\.[a-z0-9-]{1,12}){1,3}$/;
/** Of a fault, so much is told. */
const MOST_WORDS = 500;
const FRESH = constants.O_WRONLY | constants.O_CREAT | constants.O_EXCL | constants.O_NOFOLLOW;
/** What ends a PNG (ISO/IEC 15948, 11.2.5): before it is there, the editor is still writing. */
const PNG_END = Buffer.from('0000000049454e44ae426082', 'hex');

/** What could not be done is told, and tried again in the next round. */
export async function askForPictures(context: Context, told: Pick<Instructions, 'pictures'>): Promise<string[]> {
  const faults: string[] = [];
  for (const group of told.pictures ?? []) {
    if (!isInside(group.folder) || !Object.values(group.endings).every((one) => ENDING.test(one))) continue;
    for (const asked of group.asked) {
      try {
        if (ID.test(asked.id) && asked.id.length === 36) await takeCareOf(context, group, asked);
      } catch (error) {
        if (!isOfOneAlone(error)) throw error;
        faults.push(`${group.folder}: ${error.message}`);
      }
    }
    await tidy(context, group);
  }
  return faults;
}

/** The disk, a link, or the server's no: others may come through. */
const isOfOneAlone = (error: unknown): error is Error =>
  error instanceof Unsafe || error instanceof ServerError || (error instanceof Error && 'syscall' in error);

async function takeCareOf(context: Context, group: PicturesAsked, asked: Asked): Promise<void> {
  const { server, root } = context;
  const at = (ending: string): Promise<string> => inside(root, `${group.folder}/${asked.id}${ending}`);
  const { picture, ask, result, fault } = group.endings;
  const made = await read(await at(result), MOST_PICTURE);
  if (made?.subarray(-PNG_END.length).equals(PNG_END)) {
    await server.sendPicture(asked.id, made);
    context.step?.('sent');
    return remove(context, group, asked.id);
  }
  const why = await read(await at(fault), 100_000);
  if (why) {
    const message = why.toString('utf8').trim().slice(0, MOST_WORDS);
    await server.sendPictureFault(asked.id, message || 'the editor made no picture, and does not say why');
    context.step?.('told');
    return remove(context, group, asked.id);
  }
  if (made || (await read(await at(ask), 100_000))) return;
  await mkdir(dirname(await at(ask)), { recursive: true });
  await lay(context, await at(picture), await fetched(context, asked));
  context.step?.('picture');
  // the text comes last: an editor that finds it finds its picture too
  await lay(context, await at(ask), Buffer.from(asked.text));
}

/** A regular file that is not too large; null where there is none. */
async function read(file: string, most: number): Promise<Buffer | null> {
  const stats = await lstat(file).catch(() => null);
  return stats?.isFile() && stats.size <= most ? readFile(file) : null;
}

async function fetched({ server, state }: Context, { id, sha256, size }: Asked): Promise<Buffer> {
  const part = join(state, `picture-${id}.part`);
  try {
    await server.fetchContent(sha256, part);
    const bytes = await readFile(part);
    if (bytes.length !== size || (await hashFile(part)) !== sha256)
      throw new ServerError('the picture is not what its hash says');
    return bytes;
  } finally {
    await rm(part, { force: true });
  }
}

const partOf = (file: string): string => join(dirname(file), `.etagere-${file.slice(dirname(file).length + 1)}.part`);

/** Whole or not at all, and through no link. */
async function lay(context: Context, file: string, bytes: Buffer): Promise<void> {
  const part = partOf(file);
  await rm(part, { force: true });
  const handle = await open(part, FRESH, 0o644);
  try {
    await handle.writeFile(bytes);
    await handle.sync();
  } finally {
    await handle.close();
  }
  context.step?.('part');
  await rename(part, file);
}

/** The text goes first: without it, the editor is asked for nothing. */
async function remove({ root }: Context, { folder, endings }: PicturesAsked, id: string): Promise<void> {
  for (const ending of [endings.ask, endings.picture, endings.fault, endings.result])
    await rm(await inside(root, `${folder}/${id}${ending}`), { force: true });
}

/** What is not asked for any more goes: files that bear an id and one of the endings, and no others. */
async function tidy({ root }: Context, { folder, endings, asked }: PicturesAsked): Promise<void> {
  const open = new Set(asked.map(({ id }) => id));
  const names = await readdir(join(root, folder)).catch(() => []);
  for (const name of names) {
    const own = name.replace(/^\.etagere-(.*)\.part$/, '$1');
    const id = ID.exec(own)?.[0] ?? '';
    if (!id || open.has(id) || !Object.values(endings).includes(own.slice(id.length))) continue;
    const file = await inside(root, `${folder}/${name}`).catch(() => null);
    if (file) await rm(file, { force: true }).catch(() => {});
  }
}
