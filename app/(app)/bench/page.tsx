import { candidatesFor, listBenches, listChoices, listSets } from '@/server/bench/service';
import { listCharts } from '@/server/charts/service';
import { listExports } from '@/server/frames/exports';
import { listFrames } from '@/server/frames/service';
import { listShelves } from '@/server/items/service';
import { may } from '@/server/people/roles';
import { person } from '@/server/web';
import { Bench } from '@/ui/bench/Bench';
import { candidateOf } from '@/ui/bench/candidate';

export const metadata = { title: 'Bench' };

export default async function Page({ searchParams }: { searchParams: Promise<{ cols?: string }> }) {
  const p = await person();
  const versions = ((await searchParams).cols ?? '').match(/[0-9a-f]{8}-[0-9a-f-]{27}/g) ?? [];
  const [choices, frames, charts, exports, sets, shelves, saved, known] = await Promise.all([
    listChoices(p),
    listFrames(p),
    listCharts(p),
    listExports(p),
    listSets(p),
    listShelves(p),
    listBenches(p),
    candidatesFor(p, versions),
  ]);
  return (
    <Bench
      choices={choices.map((c) => ({
        client: c.client,
        camera: c.camera,
        light: c.light,
        kind: c.file_kind,
        strength: c.strength,
        profile: c.profile,
        profileVersion: c.profile_version,
        look: c.look,
        lookVersion: c.look_version,
      }))}
      frames={frames}
      charts={charts}
      exports={exports.map((e) => ({ id: e.id, frame: e.frame_id, label: e.label }))}
      sets={sets}
      shelves={shelves.filter((s) => !s.query && s.items > 0).map(({ id, name }) => ({ id, name }))}
      saved={saved.map((b) => ({
        id: b.id,
        name: b.name,
        state: b.state,
        person: b.person,
        mine: b.person_id === p.id,
      }))}
      known={known.map(candidateOf)}
      may={{
        judge: may(p, 'verdict.give'),
        choice: may(p, 'choice.make'),
        edit: may(p, 'item.edit'),
        frames: may(p, 'frame.edit'),
        profile: may(p, 'profile.edit'),
      }}
    />
  );
}
