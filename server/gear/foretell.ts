/** Whether an item will show for a photo like one of the frames: in each editor, and at each station that has it. */
import { must } from '@/core/must';
import { editorKey } from '@/core/editor/descriptor';
import { bodyOf } from '@/core/frame/body';
import type { Settings } from '@/core/preset/kinds';
import { referencesOf } from '@/core/preset/mapping';
import { cameraForm, bears, type Named } from '@/core/records/names';
import { foretell, type Foretold, type ItemSide, type PhotoSide } from '@/core/records/foretell';
import { Problem } from '@/core/problem';
import { pool } from '../db/pool';
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
  /** null: the editor alone, where no station has it */ station: { id: string; name: string } | null;
}

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
  const newest = must(versions[0]);
  const needs = referencesOf((newest.facts.settings ?? {}) as Settings).map((r) => r.name);
  const held = new Set(await titlesHeld(sql, needs));
  const side: ItemSide = {
    title: item.title,
    kind: item.kind,
    format: newest.format,
    status: newest.status,
    archived: item.archived_at !== null,
    away: mine.find((s) => s.id === item.shelf_id && s.away)?.name ?? '',
    cameras: item.cameras,
    input: item.scope.input ?? null,
    result: item.scope.result ?? null,
    needs: needs.map((name) => ({ name, held: held.has(name) })),
  };
  const named: Named = own.find((c) => bears(c, cameraForm, frame.camera)) ?? {
    maker: frame.camera.split(' ')[0] ?? '',
    model: frame.camera,
    names: [],
  };
  const photo: PhotoSide = {
    name: frame.name,
    camera: { ...named, model: frame.camera, names: [named.model, ...named.names] },
    body: bodyOf(frame),
    kind: frame.file_kind,
    result: null,
  };
  const at = editors.flatMap(({ descriptor }): ForetoldAt[] => {
    const key = editorKey(descriptor);
    const common = { editor: key, title: descriptor.title };
    const having = here.filter((h) => editorKey(h.descriptor) === key);
    if (!having.length)
      return [
        {
          ...common,
          station: null,
          ...foretell(side, photo, { descriptor, system: null, placed: null, lists: null }),
        },
      ];
    return having.map((stationEditor) => {
      const station = must(all.find((s) => s.id === stationEditor.station_id));
      const placement = places.find(
        (placement) =>
          placement.station_id === stationEditor.station_id &&
          placement.item_id === itemId &&
          placement.editor_id === descriptor.editor &&
          placement.editor_version === descriptor.version,
      );
      return {
        ...common,
        station: { id: station.id, name: station.name },
        ...foretell(side, photo, {
          descriptor,
          system: station.system as never,
          placed: placement
            ? placementState(
                descriptor,
                placement.path,
                placement.placed_at,
                stationEditor.running,
                stationEditor.listing,
                stationEditor.listed_at,
              )
            : null,
          lists: stationEditor.listing?.listed.map((l) => l.title) ?? null,
        }),
      };
    });
  });
  return { item: item.title, photo: frame.name, at };
}
