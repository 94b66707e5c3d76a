/** What editors will offer for a photo that somebody has at hand: by its camera and kind, without the photo itself. */
import type { AnswerOf, BodyOf } from '@/core/api';
import { gearEndpoints } from '@/core/api/gear';
import { editorKey } from '@/core/editor/descriptor';
import { foretell, type ItemSide, type PhotoSide } from '@/core/records/foretell';
import { bears, cameraForm } from '@/core/records/names';
import { pool } from '../db/pool';
import { checked } from '../input';
import { allow, type Person } from '../people/roles';
import * as q from './queries';

/** So many approved items are looked at; a studio with more is told of the first. */
const MOST_ITEMS = 2000;
const MOST_TITLES = 60;

const sideOf = (item: q.ApprovedItem): ItemSide => ({
  title: item.title,
  kind: item.kind,
  format: item.format,
  status: 'approved',
  archived: false,
  away: '',
  cameras: item.cameras,
  iccClass: item.icc_class,
  input: item.scope.input ?? null,
  result: item.scope.result ?? (item.gray ? 'monochrome' : null),
  needs: [],
});

/** For each editor of the studio the approved items that it would offer, once they are placed; and which names are held. */
export async function offeredFor(
  person: Person,
  input: BodyOf<'POST /api/gear/offered'>,
): Promise<AnswerOf<'POST /api/gear/offered'>> {
  allow(person, 'view');
  const asked = checked(gearEndpoints['POST /api/gear/offered'].body, input);
  const sql = pool();
  const [editors, items, own, held] = await Promise.all([
    q.editorsHere(sql),
    q.approvedItems(sql, MOST_ITEMS),
    q.cameras(sql),
    q.itemsNamed(sql, asked.names),
  ]);
  const listed = own.find((camera) => asked.camera && bears(camera, cameraForm, asked.camera));
  const photo: PhotoSide = {
    name: asked.name,
    camera: listed ?? { maker: asked.maker, model: asked.camera, names: [] },
    body: asked.camera,
    kind: asked.kind,
    range: null,
    result: null,
  };
  const offers = editors.map(({ descriptor }) => {
    const shown = items.filter(
      (item) => foretell(sideOf(item), photo, { descriptor, system: null, placed: null, lists: null }).answer === 'yes',
    );
    return {
      editor: editorKey(descriptor),
      title: descriptor.title,
      shown: shown.length,
      of: items.length,
      titles: shown.slice(0, MOST_TITLES).map((item) => item.title),
    };
  });
  return { editors: offers, held };
}
