/** Looks as tables, chains and ICC profiles and back; camera profiles as ICC input profiles, or edited. */
import { isLookForm, takes, type Derive } from '@/core/conversion/recipe';
import type { Figures } from '@/core/conversion/outcome';
import { cameraProfileFacts } from '@/core/camera/facts';
import { bodyOf } from '@/core/frame/body';
import { Problem } from '@/core/problem';
import { recognise } from '@/core/recognise';
import { getBlob } from '../../blobs/service';
import { descriptors } from '../../editors/service';
import { pool } from '../../db/pool';
import { frames } from '../../frames/queries';
import { cameraHead } from '../../frames/service';
import { compute } from '../../threads/computing';
import type { Maker, Source } from './made';

interface File {
  bytes: Uint8Array;
  extension: string;
  residual: Figures | null;
  said: string;
}

/** The frame whose neutral is meant, with its body; null for forms that need none. */
async function frameOf({ form, frame }: Derive): Promise<{ neutral: number[]; body: string } | null> {
  if (form !== 'anchored') return null;
  const [{ neutral }, all] = await Promise.all([cameraHead(frame), frames(pool())]);
  const own = all.find(({ id }) => id === frame);
  return { neutral: [...neutral], body: own?.camera ? bodyOf(own) : '' };
}

function derived(recipe: Derive, bytes: Uint8Array, title: string, neutral: number[] | null): Promise<File> {
  const { form, points, kelvin, camera } = recipe;
  const created = new Date();
  return isLookForm(form)
    ? compute('deriveLook', { bytes, asked: { form, title, points, created } })
    : compute('deriveProfile', { bytes, asked: { form, title, points, kelvin, neutral, camera, created } });
}

/** A profile that was anchored for the neutral of a frame is for that frame's body. */
function camerasOf({ form, camera }: Derive, own: readonly string[], body: string): string[] {
  if (form === 'other-camera') return [camera];
  return body ? [body] : [...own];
}

const canBecome = ({ version }: Source, recipe: Derive): boolean =>
  version.kind === takes(recipe) && (version.kind !== 'camera-profile' || version.format === 'dcp');

export const deriveForm: Maker<Derive> = async (recipe, source, title, sql) => {
  const { version, item } = source;
  if (!canBecome(source, recipe))
    throw new Problem(
      'derive-form',
      `${version.title} cannot become that.`,
      version.title,
      version.kind === 'preset' ? 'Convert the preset into a look first.' : 'Choose another form.',
    );
  const frame = await frameOf(recipe);
  const made = await derived(recipe, new Uint8Array(await getBlob(version.sha256)), title, frame?.neutral ?? null);
  const fileName = `${title}.${made.extension}`;
  const recognised = recognise(fileName, made.bytes, await descriptors(sql));
  const isLook = isLookForm(recipe.form);
  const facts = made.extension === 'dcp' ? cameraProfileFacts(made.bytes) : recognised.facts;
  const cameras = camerasOf(recipe, item.cameras, frame?.body ?? '');
  const tableError = made.residual ? { tableError: made.residual } : {};
  return {
    kind: isLook ? 'look' : 'camera-profile',
    bytes: made.bytes,
    fileName,
    format: recognised.format,
    facts: { ...facts, cameras, ...tableError },
    selvedge: isLook ? await compute('selvedge', { bytes: made.bytes }) : version.selvedge,
    ...(isLook && version.encoding ? { encoding: version.encoding } : {}),
    notes: `${made.said}, made from ${item.title}`,
    outcome: { said: made.said, carried: [], approximated: [], left: [], unknown: [], error: made.residual },
    figures: tableError,
    told: { action: 'made in another form', after: { title, form: recipe.form } },
  };
};
