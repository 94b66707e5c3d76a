import { Suspense } from 'react';
import { listFrames } from '@/server/frames/service';
import { signedInPerson } from '@/server/http';
import { openingOnFrame } from '@/server/opening/on-frame';
import { namesForRules, openingFor } from '@/server/opening/service';
import { may, type Person } from '@/server/people/roles';
import { PlanLists } from '@/ui/editor-lists/PlanLists';
import { listsShown, placesOf } from '@/ui/editor-lists/shown';
import { Refresh } from '@/ui/kit/Refresh';
import { Skeleton } from '@/ui/kit/Section';
import { counted } from '@/ui/kit/words';
import { DoubleInRules } from '@/ui/opening/DoubleInRules';
import { FrameChoice } from '@/ui/opening/FrameChoice';
import { OnFrame } from '@/ui/opening/OnFrame';
import { OpeningMatrix } from '@/ui/opening/OpeningMatrix';
import { StudioRules } from '@/ui/opening/StudioRules';
import { PageHead } from '@/ui/shell/Shell';

export const metadata = { title: 'Opening rules' };

export default async function Page({ searchParams }: { searchParams: Promise<{ frame?: string }> }) {
  const person = await signedInPerson();
  const [{ rules, revision, lists, doubles }, names, frames] = await Promise.all([
    openingFor(person),
    namesForRules(person),
    listFrames(person),
  ]);
  const asked = (await searchParams).frame;
  const frame = frames.find(({ id }) => id === asked) ?? frames.find(isCameraData) ?? frames[0];
  const due = lists.filter(({ state }) => state === 'update-due');
  const shown = listsShown(lists);
  const mayDo = { plan: may(person, 'rollout.plan'), set: may(person, 'opening.set') };
  return (
    <div className="px-6 pb-16 pt-[18px]">
      <Refresh subjects={['station', 'rollout', 'studio']} />
      <PageHead
        title="Opening rules"
        note={
          due.length
            ? `what editors begin a photo with; ${counted(due.length, 'list')} of ${lists.length} would change`
            : 'what editors begin a photo with'
        }
      >
        {mayDo.plan && due.length > 0 && (
          <PlanLists
            main
            what="opening"
            places={placesOf(due)}
            words={`Bring ${counted(due.length, 'list')} in step`}
          />
        )}
      </PageHead>
      <DoubleInRules doubles={doubles} />
      <h2 className="mb-1 text-[17px]">Of the studio</h2>
      <StudioRules rules={rules} revision={revision} may={mayDo.set} names={names} />
      <h2 className="mb-1 text-[17px]">At the stations</h2>
      {lists.length ? (
        <OpeningMatrix lists={shown} may={mayDo} />
      ) : (
        <p className="border-t border-line py-2 text-soft">
          No editor at any station has opening rules that a descriptor tells of.
        </p>
      )}
      {lists.length > shown.length && (
        <p className="mt-2 text-soft">and {lists.length - shown.length} more, at stations where nothing would change</p>
      )}
      {frame && (
        <section aria-label="On a frame" className="mt-8">
          <h2 className="mb-1 text-[17px]">On a frame</h2>
          <FrameChoice frames={frames.map(({ id, name }) => ({ id, name }))} frame={frame.id} />
          <Suspense key={frame.id} fallback={<Skeleton lines={4} />}>
            <Begun person={person} frame={frame.id} />
          </Suspense>
        </section>
      )}
    </div>
  );
}

const isCameraData = ({ file_kind }: { file_kind: string }): boolean => file_kind === 'camera data';

/** It takes a moment to develop the frame in each way. */
async function Begun({ person, frame }: { person: Person; frame: string }) {
  const { database, ...told } = await openingOnFrame(person, frame);
  return <OnFrame {...told} database={may(person, 'rollout.plan') ? database : null} />;
}
