import { mkdirSync, readdirSync, readFileSync, symlinkSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import sharp from 'sharp';
import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { writeFile } from 'node:fs/promises';
import type { PicturesAsked } from '@/core/sync/protocol';
import { ServerError } from './faults';
import { askForPictures } from './pictures';
import { Scratch, sha, type ScratchStation } from './testing/scratch';

const scratch = new Scratch('etagere-pictures-');
afterAll(() => scratch.remove());

const id = '01900000-0000-7000-8000-00000000000a';
const FOLDER = 'Oxbow/Proofs';
const content = 'a picture';
const endings = { picture: '.png', ask: '.ask.json', result: '.done.png', fault: '.fault.txt' };
const asked = { id, sha256: sha(content), size: content.length, text: '{"put": "x"}' };
const told = (...all: PicturesAsked['asked']) => ({ pictures: [{ folder: FOLDER, endings, asked: all }] });

let station: ScratchStation;
let sent: [string, Buffer][];
let faults: [string, string][];
const server = {
  fetchContent: (_sha: string, to: string) => writeFile(to, content),
  sendPicture: async (of: string, bytes: Buffer) => void sent.push([of, bytes]),
  sendPictureFault: async (of: string, message: string) => void faults.push([of, message]),
};
const round = (told_: { pictures: PicturesAsked[] }, other: Partial<typeof server> = {}) =>
  askForPictures({ server: { ...server, ...other }, root: station.root, state: station.state }, told_);
const there = () => readdirSync(join(station.root, FOLDER)).sort();
const put = (ending: string, bytes: string | Buffer) => writeFileSync(join(station.root, FOLDER, id + ending), bytes);
const picture = () =>
  sharp({ create: { width: 4, height: 4, channels: 3, background: '#345' } })
    .png()
    .toBuffer();

beforeEach(() => {
  station = scratch.station();
  sent = [];
  faults = [];
});

describe('pictures that editors are asked for', () => {
  it('lie in the editor’s folder with what is to be done, once', async () => {
    expect(await round(told(asked))).toEqual([]);
    expect(there()).toEqual([`${id}.ask.json`, `${id}.png`]);
    expect(readFileSync(join(station.root, FOLDER, `${id}.png`), 'utf8')).toBe(content);
    expect(await round(told(asked), { fetchContent: () => Promise.reject(new Error('asked twice')) })).toEqual([]);
    expect(sent).toEqual([]);
  });

  it('are sent when the editor has made them whole, and leave nothing behind', async () => {
    await round(told(asked));
    const made = await picture();
    put('.done.png', made.subarray(0, -3));
    await round(told(asked));
    expect(sent).toEqual([]);
    put('.done.png', made);
    await round(told(asked));
    expect(sent).toEqual([[id, made]]);
    expect(there()).toEqual([]);
  });

  it('are told as not made, with the editor’s reason', async () => {
    await round(told(asked));
    put('.fault.txt', ' it lists no such thing\n');
    await round(told(asked));
    expect(faults).toEqual([[id, 'it lists no such thing']]);
    expect(there()).toEqual([]);
  });

  it('are kept until the server has taken them', async () => {
    await round(told(asked));
    put('.done.png', await picture());
    const refuses = { sendPicture: () => Promise.reject(new ServerError('not now')) };
    expect(await round(told(asked), refuses)).toEqual([`${FOLDER}: not now`]);
    expect(there()).toContain(`${id}.done.png`);
    await round(told(asked));
    expect(sent.length).toBe(1);
  });

  it('go where nobody asks any more, and nothing else does', async () => {
    await round(told(asked));
    writeFileSync(join(station.root, FOLDER, 'holiday.png'), 'theirs');
    writeFileSync(join(station.root, FOLDER, `${id}.psd`), 'theirs');
    await round(told());
    expect(there()).toEqual([`${id}.psd`, 'holiday.png']);
  });

  it('are not laid where a link leads out of the station, and others go on', async () => {
    const outside = join(scratch.base, 'outside');
    mkdirSync(outside, { recursive: true });
    mkdirSync(join(station.root, 'Oxbow'));
    symlinkSync(outside, join(station.root, FOLDER));
    expect((await round(told(asked)))[0]).toMatch(/leaves the station's root/);
    expect(readdirSync(outside)).toEqual([]);
  });

  it('are not laid where the content is another than the one that was promised', async () => {
    const other = { ...asked, sha256: sha('another') };
    expect((await round(told(other)))[0]).toMatch(/not what its hash says/);
    expect(there()).toEqual([]);
    expect(readdirSync(station.state)).toEqual([]);
  });

  it('are told as not laid where the disk is full, and others go on', async () => {
    const full = Object.assign(new Error('ENOSPC: no space left on device, write'), {
      code: 'ENOSPC',
      syscall: 'write',
    });
    const other = { ...asked, id: id.replace(/a$/, 'b') };
    let first = true;
    const fetchContent = (of: string, to: string) => {
      const fails = first;
      first = false;
      return fails ? Promise.reject(full) : server.fetchContent(of, to);
    };
    expect(await round(told(asked, other), { fetchContent })).toEqual([`${FOLDER}: ${full.message}`]);
    expect(there()).toEqual([`${other.id}.ask.json`, `${other.id}.png`]);
  });

  it('are laid whole by the agent that comes after a killed one', async () => {
    for (const name of ['part', 'picture']) {
      const step = (at: string) => {
        if (at === name) throw new Error('killed');
      };
      const context = { server, root: station.root, state: station.state, step };
      await expect(askForPictures(context, told(asked))).rejects.toThrow('killed');
      expect(there()).not.toContain(`${id}.ask.json`);
    }
    await round(told(asked));
    expect(there()).toEqual([`${id}.ask.json`, `${id}.png`]);
  });

  it('pass over what would step out of the root', async () => {
    const out = { pictures: [{ folder: '../elsewhere', endings, asked: [asked] }] };
    const ends = { pictures: [{ folder: FOLDER, endings: { ...endings, ask: '/../../x' }, asked: [asked] }] };
    expect(await round(out)).toEqual([]);
    expect(await round(ends)).toEqual([]);
    expect(readdirSync(station.root)).toEqual([]);
  });
});
