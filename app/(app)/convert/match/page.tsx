import { Problem } from '@/core/problem';
import { previewMatch, type MatchFigures } from '@/server/camera-match/service';
import { listFrames, type FrameRow } from '@/server/frames/service';
import { signedInPerson } from '@/server/http';
import { listShelves } from '@/server/items/service';
import { may, type Person } from '@/server/people/roles';
import { Notice } from '@/ui/kit/Notice';
import { FramesOfMatch } from '@/ui/match/FramesOfMatch';
import { MakeMatch } from '@/ui/match/MakeMatch';
import { MatchPicture } from '@/ui/match/MatchPicture';
import { Patches, shownWords } from '@/ui/match/Patches';
import { PageHead } from '@/ui/shell/Shell';

export const metadata = { title: 'Camera match' };

interface Props {
  searchParams: Promise<{ from?: string; to?: string }>;
}

export default async function Page({ searchParams }: Props) {
  const person = await signedInPerson();
  const { from = '', to = '' } = await searchParams;
  const frames = await listFrames(person);
  const known = (id: string): string => (frames.some((frame) => frame.id === id) ? id : '');
  const chosen = { from: known(from), to: known(to) };
  return (
    <div className="max-w-[1180px] px-6 pb-16 pt-[18px]">
      <PageHead title="Camera match" note="a look that makes pictures of one camera look like those of another" />
      <FramesOfMatch
        frames={frames.map(({ id, name, camera }: FrameRow) => ({ id, name, camera }))}
        from={chosen.from}
        to={chosen.to}
      />
      {chosen.from && chosen.to ? (
        <Match key={`${chosen.from} ${chosen.to}`} person={person} from={chosen.from} to={chosen.to} />
      ) : (
        <p className="max-w-[640px] border-t border-line py-4 text-soft">
          Choose two frames of one scene, taken from the same place in the same light by two cameras; or of one chart,
          placed on both. Even areas that both show are compared, and the look is fitted to them: at least twelve are
          needed.
        </p>
      )}
    </div>
  );
}

async function Match({ person, from, to }: { person: Person; from: string; to: string }) {
  const found = await previewMatch(person, from, to).catch((error: unknown) => {
    if (error instanceof Problem) return error;
    throw error;
  });
  if (found instanceof Problem) return <Notice problem={found.toJSON()} />;
  const shelves = (await listShelves(person)).filter((shelf) => !shelf.query);
  const nameOf = ({ camera, name }: FrameRow): string => camera || name;
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_280px] gap-8 max-[1000px]:grid-cols-[minmax(0,1fr)]">
      <div>
        <div className="mb-4 grid grid-cols-2 gap-4">
          <MatchPicture frame={found.from} words="Is changed" patches={found.patches} />
          <MatchPicture frame={found.to} words="Is to look like" patches={found.patches} />
        </div>
        <h2 className="mb-1 text-[17px]">
          Patches <span className="font-sans text-[13.5px] text-soft">{shownWords(found.patches.length)}</span>
        </h2>
        <Patches patches={found.patches} />
      </div>
      <div>
        <Figures match={found} />
        {may(person, 'item.convert') && (
          <MakeMatch
            from={from}
            to={to}
            title={`${nameOf(found.from)} as ${nameOf(found.to)}`}
            camera={found.from.camera}
            shelves={shelves.map(({ id, name }) => ({ id, name }))}
          />
        )}
      </div>
    </div>
  );
}

/** What is left of the difference, as a share, above which the two frames differ by more than their cameras. */
const LITTLE_GAINED = 0.8;

function Figures({ match: { by, patches, before, after } }: { match: MatchFigures }) {
  const used = patches.filter((patch) => patch.used).length;
  const rows = [
    ['Compared by', by === 'chart' ? 'the patches of the chart' : 'even areas of the scene'],
    ['Patches used', `${used} of ${patches.length}`],
    ['Before', `ΔE00 mean ${before.mean.toFixed(2)}, max ${before.max.toFixed(2)}`],
    ['After', `ΔE00 mean ${after.mean.toFixed(2)}, max ${after.max.toFixed(2)}`],
  ];
  return (
    <>
      <dl className="facts mb-3 border-b border-line">
        {rows.map(([name, words]) => (
          <div key={name}>
            <dt>{name}</dt>
            <dd>{words}</dd>
          </div>
        ))}
      </dl>
      {after.mean > LITTLE_GAINED * before.mean && (
        <p role="status" className="mb-5 text-ochre">
          {before.mean < 1
            ? 'The two are alike already: a look has little to add.'
            : 'A look brings these two hardly nearer: they differ by more than their cameras. Take both in the same light, from the same place.'}
        </p>
      )}
    </>
  );
}
