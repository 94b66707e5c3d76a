/** Looks as tables, chains and ICC profiles and back; camera profiles as ICC input profiles, or edited. */
import { isLookForm, takes, type Derive } from '@/core/conversion/recipe';
import type { Figures } from '@/core/conversion/outcome';
import { cameraProfileFacts } from '@/core/camera/facts';
import { Problem } from '@/core/problem';
import { recognise } from '@/core/recognise';
import { getBlob } from '../../blobs/service';
import { descriptors } from '../../editors/service';
import { compute } from '../../threads/computing';
import type { Maker, Source } from './made';

interface File {
  bytes: Uint8Array;
  extension: string;
  residual: Figures | null;
  said: string;
}

function derived(recipe: Derive, bytes: Uint8Array, title: string): Promise<File> {
  const { form, points, kelvin, camera } = recipe;
  const created = new Date();
  return isLookForm(form)
    ? compute('deriveLook', { bytes, asked: { form, title, points, created } })
    : compute('deriveProfile', { bytes, asked: { form, title, points, kelvin, camera, created } });
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
  const made = await derived(recipe, new Uint8Array(await getBlob(version.sha256)), title);
  const fileName = `${title}.${made.extension}`;
  const recognised = recognise(fileName, made.bytes, await descriptors(sql));
  const isLook = isLookForm(recipe.form);
  const facts = made.extension === 'dcp' ? cameraProfileFacts(made.bytes) : recognised.facts;
  const cameras = recipe.form === 'other-camera' ? [recipe.camera] : item.cameras;
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
