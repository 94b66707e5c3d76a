/** Whether an item will show for a photo like one of the frames: in each editor, and at each station that has it. */
import { inputOfForm, newestForms } from '@/core/item/forms';
import { must } from '@/core/must';
import { iccClassOf } from '@/core/editor/acceptance';
import { editorKey } from '@/core/editor/descriptor';
import { bodyOf } from '@/core/frame/body';
import type { Settings } from '@/core/preset/kinds';
import { referencesOf } from '@/core/preset/mapping';
import { cameraForm, bears, type Named } from '@/core/records/names';
import { foretell, type Foretold, type ItemSide, type PhotoSide } from '@/core/records/foretell';
import { Problem } from '@/core/problem';
import { pool, type Sql } from '../db/pool';
import { frames } from '../frames/queries';
import { itemById, shelves, versionsOf } from '../items/queries';
import { titlesHeld } from '../arrivals/queries';
import { allow, type Person } from '../people/roles';
import { placements, stationEditors, stations } from '../stations/queries';
import { placementState } from '../stations/placement-state';
import { cameras, editorsHere } from './queries';

export interface ForetoldAt extends Foretold {
  editor: string;
  title: string;
  /** the variant of the item that is meant; '' for the plain one, or where there is one alone */ variant: string;
  /** null: the editor alone, where no station has it */ station: { id: string; name: string } | null;
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
    result: item.scope.result ?? (item.gray ? 'monochrome' : null),
    needs: needs.map((name) => ({ name, held: held.has(name) })),
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

function placementAt(places: Placement[], itemId: string, variant: string, { descriptor, ...here }: StationEditor) {
  const placement = places.find(
    (place) =>
      place.station_id === here.station_id &&
      place.item_id === itemId &&
      (place.variant ?? '') === variant &&
      place.editor_id === descriptor.editor &&
      place.editor_version === descriptor.version,
  );
  if (!placement) return null;
  return placementState({ descriptor, ...here }, placement);
}

/** One form of an item as it is asked about. */
interface Form {
  variant: string;
  side: ItemSide;
}

const rank = { yes: 0, unknown: 1, no: 2 } as const;

/** Of the forms of an item the one that an editor would offer; of equals the one with the least to be said, the plain one first. */
function bestForm(forms: readonly Form[], ask: (form: Form) => Foretold): Foretold & { variant: string } {
  const asked = forms.map((form) => ({ variant: form.variant, ...ask(form) }));
  const [best] = asked.sort(
    (one, other) => rank[one.answer] - rank[other.answer] || one.findings.length - other.findings.length,
  );
  return must(best);
}

/** Whether a photo could take an item, in each editor and at each station that has it, and why not. */
export async function foretellFor(
  person: Person,
  itemId: string,
  frameId: string,
): Promise<{ item: string; photo: string; at: ForetoldAt[] }> {
  allow(person, 'view');
  const sql = pool();
  const item = await itemById(sql, itemId, person.id);
  const frame = (await frames(sql)).find((f) => f.id === frameId);
  if (!item)
    throw new Problem('not-found', 'There is no such item.', itemId, 'Go back to Shelves; it may have been archived.');
  if (!frame) throw new Problem('not-found', 'There is no such frame.', frameId, 'Choose another frame.');
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
      side: await itemSide(sql, item, version, away),
    })),
  );
  const photo = photoSide(frame, own);
  const at = editors.flatMap(({ descriptor }): ForetoldAt[] => {
    const key = editorKey(descriptor);
    const common = { editor: key, title: descriptor.title };
    const having = here.filter((h) => editorKey(h.descriptor) === key);
    if (!having.length) {
      const nowhere = { descriptor, system: null, placed: null, lists: null };
      return [{ ...common, station: null, ...bestForm(forms, ({ side }) => foretell(side, photo, nowhere)) }];
    }
    return having.map((stationEditor) => {
      const station = must(all.find((s) => s.id === stationEditor.station_id));
      const foretold = bestForm(forms, ({ variant, side }) =>
        foretell(side, photo, {
          descriptor,
          system: station.system as never,
          placed: placementAt(places, itemId, variant, stationEditor),
          lists: stationEditor.listing?.listed.map((l) => l.title) ?? null,
        }),
      );
      return { ...common, station: { id: station.id, name: station.name }, ...foretold };
    });
  });
  return { item: item.title, photo: frame.name, at };
}
