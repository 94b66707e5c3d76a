import { uuidsIn } from '@/core/uuid';
import { candidatesFor, listBenches, listSets } from '@/server/bench/service';
import { listChoices } from '@/server/bench/decide';
import { listCharts } from '@/server/charts/service';
import { listExports } from '@/server/frames/exports';
import { allFrames } from '@/server/frames/service';
import { listShelves } from '@/server/items/service';
import { may } from '@/server/people/roles';
import { signedInPerson } from '@/server/http';
import { Bench } from '@/ui/bench/Bench';
import { candidateOf } from '@/ui/bench/model/candidate';

export const metadata = { title: 'Bench' };

export default async function Page({ searchParams }: { searchParams: Promise<{ cols?: string }> }) {
  const person = await signedInPerson();
  const versions = uuidsIn((await searchParams).cols ?? '');
  const [choices, frames, charts, exports, sets, shelves, saved, known] = await Promise.all([
    listChoices(person),
    allFrames(person),
    listCharts(person),
    listExports(person),
    listSets(person),
    listShelves(person),
    listBenches(person),
    candidatesFor(person, versions),
  ]);
  return (
    <Bench
      choices={choices.map((choice) => ({
        client: choice.client,
        camera: choice.camera,
        light: choice.light,
        kind: choice.file_kind,
        strength: choice.strength,
        profile: choice.profile,
        profileVersion: choice.profile_version,
        look: choice.look,
        lookVersion: choice.look_version,
      }))}
      frames={frames}
      charts={charts}
      exports={exports.map((e) => ({ id: e.id, frame: e.frame_id, label: e.label }))}
      sets={sets}
      shelves={shelves.filter((s) => !s.query && s.items > 0).map(({ id, name }) => ({ id, name }))}
      saved={saved.map((bench) => ({
        id: bench.id,
        name: bench.name,
        state: bench.state,
        person: bench.person,
        mine: bench.person_id === person.id,
      }))}
      known={known.map(candidateOf)}
      may={{
        judge: may(person, 'verdict.give'),
        choice: may(person, 'choice.make'),
        edit: may(person, 'item.edit'),
        frames: may(person, 'frame.edit'),
        profile: may(person, 'profile.edit'),
        keep: may(person, 'item.convert'),
      }}
    />
  );
}
