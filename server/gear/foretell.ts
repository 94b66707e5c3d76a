/** Whether an item will show for a photo like one of the frames: in each editor, and at each station that has it. */
import { inputOfForm, newestForms } from '@/core/item/forms';
import { must } from '@/core/must';
import { iccClassOf } from '@/core/editor/acceptance';
import { editorKey } from '@/core/editor/descriptor';
import type { System } from '@/core/editor/place-schema';
import { bodyOf } from '@/core/frame/body';
import type { Settings } from '@/core/preset/kinds';
import { referencesOf } from '@/core/preset/mapping';
import { cameraForm, bears, type Named } from '@/core/records/names';
import { foretell, type Foretold, type ItemSide, type PhotoSide } from '@/core/records/foretell';
import { placeOfPath } from '@/core/sync/place-templates';
import type { BodyOf } from '@/core/api';
import { itemEndpoints, type PhotoAsked } from '@/core/api/items';
import { Problem } from '@/core/problem';
import { isUuid } from '@/core/uuid';
import { pool, type Sql } from '../db/pool';
import { frames } from '../frames/queries';
import { itemById, shelves, versionsOf } from '../items/queries';
import { approvedByTitle, titlesHeld } from '../arrivals/queries';
import { checked } from '../input';
import { allow, type Person } from '../people/roles';
import { placements, stationEditors, stations } from '../stations/queries';
import { hasLauncher } from '../stations/launcher';
import { placementState } from '../stations/placement-state';
import { cameras, editorsHere } from './queries';

export interface ForetoldAt extends Foretold {
  editor: string;
  title: string;
  /** the variant of the item that is meant; '' for the plain one, or where there is one alone */ variant: string;
  /** null: the editor alone, where no station has it */ station: { id: string; name: string } | null;
  /** of the form that is meant; and approved ones of what it refers to */ version: string;
  needs: string[];
}
export interface ForetoldFor {
  item: string;
  photo: string;
  shelf: string | null;
  /** whether editors at stations can be started from here */ launcher: boolean;
  at: ForetoldAt[];
}

type Item = NonNullable<Awaited<ReturnType<typeof itemById>>>;
type Version = Awaited<ReturnType<typeof versionsOf>>[number];
type Frame = Awaited<ReturnType<typeof frames>>[number];
type Camera = Awaited<ReturnType<typeof cameras>>[number];
type Placement = Awaited<ReturnType<typeof placements>>[number];
type StationEditor = Awaited<ReturnType<typeof stationEditors>>[number];

async function itemSide(sql: Sql, item: Item, newest: Version, away: string): Promise<ItemSide> {
  const needs = referencesOf((newest.facts.settings ?? {}) as Settings).map((r) => r.name);
  const held = new Set(await titlesHeld(sql, needs));
  return {
    title: item.title,
    kind: item.kind,
    format: newest.format,
    status: newest.status,
    archived: item.archived_at !== null,
    away,
    cameras: item.cameras,
    iccClass: iccClassOf(newest),
    input: inputOfForm(newest, item.scope.input ?? null),
    result: item.scope.result ?? null,
    gives: item.gray ? 'monochrome' : null,
    needs: needs.map((name) => ({ name, held: held.has(name) })),
  };
}

/** What a photo that was not taken in says of itself. A converted body is known by its serial, where the studio lists that. */
function photoSideOf(photo: PhotoAsked, own: Camera[]): PhotoSide {
  const listed = own.filter((camera) => bears(camera, cameraForm, photo.camera));
  const body = listed.find(({ serials }) => photo.serial !== '' && serials.includes(photo.serial));
  const named: Named = body ?? listed[0] ?? { maker: photo.maker, model: photo.camera, names: [] };
  return {
    name: photo.name,
    camera: { ...named, model: photo.camera, names: [named.model, ...named.names] },
    body: bodyOf({ camera: photo.camera, conversion: body?.conversion ?? '' }),
    kind: photo.kind,
    range: photo.kind === 'camera data' ? null : photo.range,
    result: photo.result,
  };
}

/** A camera that is not listed is known by its file's name for it alone. */
function photoSide(frame: Frame, own: Camera[]): PhotoSide {
  const named: Named = own.find((camera) => bears(camera, cameraForm, frame.camera)) ?? {
    maker: frame.camera.split(' ')[0] ?? '',
    model: frame.camera,
    names: [],
  };
  return {
    name: frame.name,
    camera: { ...named, model: frame.camera, names: [named.model, ...named.names] },
    body: bodyOf(frame),
    kind: frame.file_kind,
    range: frame.dynamic_range,
    result: frame.result === 'monochrome' ? 'monochrome' : null,
  };
}

/** What became of an item at an editor: of what was put there for it, or for another that shares the folder with it. */
function placementAt(
  places: Placement[],
  itemId: string,
  variant: string,
  { system, ...editor }: StationEditor & { system: System },
) {
  const { descriptor } = editor;
  const there = places.filter(
    (place) => place.station_id === editor.station_id && place.item_id === itemId && (place.variant ?? '') === variant,
  );
  const own = there.find(
    (place) => place.editor_id === descriptor.editor && place.editor_version === descriptor.version,
  );
  if (own) return placementState(editor, own);
  for (const shared of there) {
    const place = placeOfPath(descriptor.places, system, shared.path);
    if (place !== null) return placementState(editor, { ...shared, place });
  }
  return null;
}

/** One form of an item as it is asked about. */
interface Form {
  variant: string;
  version: string;
  side: ItemSide;
}

const rank = { yes: 0, unknown: 1, no: 2 } as const;

/** Of the forms of an item the one that an editor would offer; of equals the one with the least to be said, the plain one first. */
function bestForm(forms: readonly Form[], ask: (form: Form) => Foretold): Foretold & Pick<Form, 'variant' | 'version'> {
  const asked = forms.map((form) => ({ variant: form.variant, version: form.version, ...ask(form) }));
  const [best] = asked.sort(
    (one, other) => rank[one.answer] - rank[other.answer] || one.findings.length - other.findings.length,
  );
  return must(best);
}

/** Whether a photo like one of the frames could take an item, in each editor and at each station that has it, and why not. */
export async function foretellFor(person: Person, itemId: string, frameId: string): Promise<ForetoldFor> {
  allow(person, 'view');
  const frame = (await frames(pool())).find((one) => one.id === frameId);
  if (!frame) throw new Problem('not-found', 'There is no such frame.', frameId, 'Choose another frame.');
  return foretold(person, itemId, (own) => photoSide(frame, own));
}

/** The same for a photo that a person has at hand, by what its file says. */
export async function foretellForPhoto(
  person: Person,
  itemId: string,
  input: BodyOf<'POST /api/items/:id/foretell'>,
): Promise<ForetoldFor> {
  allow(person, 'view');
  const { photo } = checked(itemEndpoints['POST /api/items/:id/foretell'].body, input);
  return foretold(person, itemId, (own) => photoSideOf(photo, own));
}

async function foretold(person: Person, itemId: string, photoBy: (own: Camera[]) => PhotoSide): Promise<ForetoldFor> {
  const sql = pool();
  const item = isUuid(itemId) ? await itemById(sql, itemId, person.id) : undefined;
  if (!item)
    throw new Problem('not-found', 'There is no such item.', itemId, 'Go back to Shelves; it may have been archived.');
  const [versions, own, here, places, editors, all, mine] = await Promise.all([
    versionsOf(sql, itemId),
    cameras(sql),
    stationEditors(sql, null),
    placements(sql, null),
    editorsHere(sql),
    stations(sql),
    shelves(sql, person.id),
  ]);
  const away = mine.find((shelf) => shelf.id === item.shelf_id && shelf.away)?.name ?? '';
  const forms = await Promise.all(
    newestForms(versions).map(async (version): Promise<Form> => ({
      variant: version.variant,
      version: version.id,
      side: await itemSide(sql, item, version, away),
    })),
  );
  const photo = photoBy(own);
  const needed = await approvedByTitle(sql, [
    ...new Set(forms.flatMap(({ side }) => side.needs.map((one) => one.name))),
  ]);
  const needsOf = (version: string): string[] => {
    const names = forms.find((form) => form.version === version)?.side.needs.map((one) => one.name) ?? [];
    return needed.filter(({ title }) => names.includes(title)).map((one) => one.version_id);
  };
  const at = editors.flatMap(({ descriptor }): ForetoldAt[] => {
    const key = editorKey(descriptor);
    const common = { editor: key, title: descriptor.title };
    const having = here.filter((h) => editorKey(h.descriptor) === key);
    if (!having.length) {
      const nowhere = { descriptor, system: null, placed: null, lists: null };
      const best = bestForm(forms, ({ side }) => foretell(side, photo, nowhere));
      return [{ ...common, station: null, needs: needsOf(best.version), ...best }];
    }
    return having.map((stationEditor) => {
      const station = must(all.find((s) => s.id === stationEditor.station_id));
      const best = bestForm(forms, ({ variant, side }) =>
        foretell(side, photo, {
          descriptor,
          system: station.system,
          placed: placementAt(places, itemId, variant, { ...stationEditor, system: station.system }),
          lists: stationEditor.listing?.listed.map((l) => l.title) ?? null,
        }),
      );
      return { ...common, station: { id: station.id, name: station.name }, needs: needsOf(best.version), ...best };
    });
  });
  return { item: item.title, photo: photo.name, shelf: item.shelf_id, launcher: hasLauncher(), at };
}
