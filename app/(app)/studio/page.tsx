/* eslint-disable @next/next/no-img-element -- our own pictures, at the width that they have */
import { listEditors, listTakings } from '@/server/editors/service';
import { listChoices } from '@/server/bench/service';
import { listFrames } from '@/server/frames/service';
import { listLicences } from '@/server/licences/service';
import { may } from '@/server/people/roles';
import { copyTolerance } from '@/server/studio/service';
import { person } from '@/server/web';
import { PageHead } from '@/ui/frame/Shell';
import { Backup } from '@/ui/studio/Backup';
import { Choices } from '@/ui/studio/Choices';
import { CopyRule } from '@/ui/studio/CopyRule';
import { Editors } from '@/ui/studio/Editors';
import { Licences } from '@/ui/studio/Licences';
import { Takings } from '@/ui/studio/Takings';

export const metadata = { title: 'Studio' };

export default async function Page() {
  const p = await person();
  const [choices, licences, editors, frames, within, takings] = await Promise.all([
    listChoices(p),
    listLicences(p),
    listEditors(p),
    listFrames(p),
    copyTolerance(),
    listTakings(p),
  ]);
  return (
    <div className="max-w-[1080px] px-6 pb-16 pt-[18px]">
      <PageHead title="Studio" note="what the house has agreed on and works with" />
      <h2 className="mb-1 text-[17px]">House choices</h2>
      <Choices
        may={may(p, 'choice.make')}
        choices={choices.map((c) => ({
          id: c.id,
          client: c.client,
          camera: c.camera,
          light: c.light,
          kind: c.file_kind,
          strength: c.strength,
          profile: c.profile,
          profileItem: c.profile_item,
          look: c.look,
          lookItem: c.look_item,
          person: c.person,
        }))}
      />
      <h2 className="mb-1 mt-8 text-[17px]">Licences</h2>
      <Licences licences={licences} may={may(p, 'licence.edit')} />
      <h2 className="mb-1 mt-8 text-[17px]">Copies</h2>
      <CopyRule key={`${within.p95} ${within.max}`} p95={within.p95} max={within.max} may={may(p, 'studio.set')} />
      <h2 className="mb-1 mt-8 text-[17px]">Editors</h2>
      <Editors
        may={may(p, 'intake.accept')}
        editors={editors.map((e) => ({
          key: `${e.id}@${e.version}`,
          title: e.descriptor.title,
          kind: e.descriptor.kind,
          systems: e.descriptor.systems,
          takes: e.descriptor.accepts.map((a) => `${a.kind}s as ${a.extension}`),
          revisions: e.revisions ?? 0,
          changed: e.changed?.toISOString() ?? null,
          by: e.by,
          stations: e.stations,
        }))}
      />
      <Takings {...takings} />
      <h2 className="mb-1 mt-8 text-[17px]">Frames</h2>
      <ul className="grid grid-cols-[repeat(auto-fill,minmax(190px,1fr))] gap-4">
        {frames.map((f) => (
          <li key={f.id}>
            <img
              src={`/api/frames/${f.id}?w=320`}
              alt=""
              width={320}
              height={Math.round((320 * f.height) / f.width)}
              loading="lazy"
              className="h-auto w-full bg-press"
            />
            <b className="font-medium [overflow-wrap:anywhere]">{f.name}</b>
            <span className="block text-[12px] text-soft">
              {[f.light, f.camera, `${f.width} × ${f.height}`].filter(Boolean).join(', ')}
            </span>
          </li>
        ))}
      </ul>
      <p className="mt-2 text-soft">
        Pictures of the studio’s own become frames at Intake: drop a JPEG, PNG, TIFF or DNG there.
      </p>
      {may(p, 'backup') && (
        <>
          <h2 className="mb-1 mt-8 text-[17px]">Backup</h2>
          <Backup />
        </>
      )}
    </div>
  );
}
