import Link from 'next/link';
import type { Accepts } from '@/core/editor/accepts';
import { mayDecide, openProposals } from '@/server/editors/proposals';
import { listEditors, listTakings } from '@/server/editors/service';
import { keptFor } from '@/server/backup/service';
import { listChoices } from '@/server/bench/decide';
import { allFrames } from '@/server/frames/service';
import { listLicences } from '@/server/licences/service';
import { may } from '@/server/people/roles';
import { asksForReview } from '@/server/studio/review';
import { copyTolerance, proofLimits } from '@/server/studio/service';
import { signedInPerson } from '@/server/http';
import { PageHead } from '@/ui/shell/Shell';
import { Backup } from '@/ui/studio/Backup';
import { Choices } from '@/ui/studio/Choices';
import { Contents } from '@/ui/studio/Contents';
import { CopyRule } from '@/ui/studio/CopyRule';
import { Editors } from '@/ui/studio/Editors';
import { Frames } from '@/ui/studio/Frames';
import { KeptStudios } from '@/ui/studio/KeptStudios';
import { Licences } from '@/ui/studio/Licences';
import { ProofRule } from '@/ui/studio/ProofRule';
import { Proposals } from '@/ui/studio/Proposals';
import { ReviewRule } from '@/ui/studio/ReviewRule';
import { Takings } from '@/ui/studio/Takings';

export const metadata = { title: 'Studio' };

/** What has no extension of its own goes into the editor's bundle. */
const takenWords = ({ kind, extension }: Accepts): string => `${kind.replace('-', ' ')}s as ${extension || 'entries'}`;

export default async function Page() {
  const person = await signedInPerson();
  const [choices, licences, editors, frames, within, takings, proposals, kept, proof, review] = await Promise.all([
    listChoices(person),
    listLicences(person),
    listEditors(person),
    allFrames(person),
    copyTolerance(),
    listTakings(person),
    openProposals(person),
    may(person, 'backup') ? keptFor(person) : [],
    proofLimits(),
    asksForReview(),
  ]);
  return (
    <div className="max-w-[1080px] px-6 pb-16 pt-[18px]">
      <PageHead title="Studio" note="what the house has agreed on and works with" />
      {may(person, 'person.view') && (
        <p className="mb-6">
          <Link className="button" href="/studio/people">
            People and what they may do
          </Link>
        </p>
      )}
      <h2 className="mb-1 text-[17px]">House choices</h2>
      <Choices
        may={may(person, 'choice.make')}
        choices={choices.map((choice) => ({
          id: choice.id,
          client: choice.client,
          camera: choice.camera,
          light: choice.light,
          kind: choice.file_kind,
          strength: choice.strength,
          profile: choice.profile,
          profileItem: choice.profile_item,
          look: choice.look,
          lookItem: choice.look_item,
          doubled: choice.doubled,
          person: choice.person,
        }))}
      />
      <h2 className="mb-1 mt-8 text-[17px]">Licences</h2>
      <Licences licences={licences} may={may(person, 'licence.edit')} />
      <h2 className="mb-1 mt-8 text-[17px]">Copies</h2>
      <CopyRule key={`${within.p95} ${within.max}`} p95={within.p95} max={within.max} may={may(person, 'studio.set')} />
      <h2 className="mb-1 mt-8 text-[17px]">Proof</h2>
      <ProofRule key={`${proof.mean} ${proof.max}`} {...proof} may={may(person, 'proof.set')} />
      <h2 className="mb-1 mt-8 text-[17px]">Rollouts</h2>
      <ReviewRule asked={review} may={may(person, 'review.set')} />
      <h2 className="mb-1 mt-8 text-[17px]">Editors</h2>
      <Proposals proposals={proposals} may={mayDecide(person)} />
      <Editors
        may={may(person, 'editor.propose')}
        editors={editors.map((editor) => ({
          key: `${editor.id}@${editor.version}`,
          title: editor.descriptor.title,
          kind: editor.descriptor.kind,
          systems: editor.descriptor.systems,
          takes: editor.descriptor.accepts.map(takenWords),
          revisions: editor.revisions ?? 0,
          changed: editor.changed?.toISOString() ?? null,
          by: editor.by,
          stations: editor.stations,
        }))}
      />
      <Takings {...takings} />
      <h2 className="mb-1 mt-8 text-[17px]">Frames</h2>
      <Frames
        may={may(person, 'frame.edit')}
        frames={frames.map((frame) => ({
          id: frame.id,
          name: frame.name,
          light: frame.light,
          subject: frame.subject,
          camera: frame.camera,
          width: frame.width,
          height: frame.height,
          archived: frame.archived,
        }))}
      />
      <p className="mt-2 text-soft">
        Pictures of the studio’s own become frames at Intake: drop a JPEG, PNG, TIFF or DNG there.
      </p>
      {may(person, 'backup') && (
        <>
          <h2 className="mb-1 mt-8 text-[17px]">Backup</h2>
          <Backup />
          <KeptStudios kept={kept} />
          <h2 className="mb-1 mt-8 text-[17px]">Contents</h2>
          <Contents />
        </>
      )}
    </div>
  );
}
