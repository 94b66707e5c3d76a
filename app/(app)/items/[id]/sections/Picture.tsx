import Link from 'next/link';
import { ItemView } from '@/ui/item/ItemView';
import { kindWords } from '@/ui/shelves/model/spine';
import { framesOfRequest, itemOfRequest, type PageProps } from '../request';

const MOST_STRENGTH = 400;
/** Frames of a profile's cameras that are laid on the bench. */
const FRAMES = 6;

interface Props extends Pick<PageProps, 'searchParams'> {
  id: string;
}

/** A strength from the address: 100 where it says nothing that is one. */
function strengthOf(text: string | undefined): number {
  const value = Math.round(Number(text ?? 100));
  return Number.isFinite(value) ? Math.min(MOST_STRENGTH, Math.max(0, value)) : 100;
}

/** What the item does to a frame, or why it is not shown on one. */
export async function Picture({ id, searchParams }: Props) {
  const { item, newest } = await itemOfRequest(id);
  const [frames, search] = await Promise.all([framesOfRequest(), searchParams]);
  if (item.kind === 'look' || item.kind === 'preset')
    return (
      <ItemView
        title={item.title}
        versionId={newest.id}
        least={item.strength_least}
        most={item.strength_most}
        frames={frames}
        frame={frames.find((frame) => frame.id === search.frame)?.id ?? frames[0]?.id ?? ''}
        strength={strengthOf(search.strength)}
      />
    );
  return (
    <p className="border border-dashed border-line-strong p-8 text-soft">
      {item.kind === 'camera-profile' && newest.format === 'dcp' ? (
        <OnTheBench cameras={item.cameras} version={newest.id} />
      ) : (
        `${kindWords[item.kind] ?? item.kind}s are judged by their facts, not on frames.`
      )}
    </p>
  );
}

/** The way to the bench with frames of a profile's cameras, beside no profile and the camera's own rendering. */
async function OnTheBench({ cameras, version }: { cameras: string[]; version: string }) {
  const frames = await framesOfRequest();
  const rows = frames
    .filter((frame) => frame.file_kind === 'camera data' && cameras.includes(frame.camera))
    .slice(0, FRAMES)
    .map((frame) => frame.id);
  return (
    <>
      A camera profile develops camera data:{' '}
      <Link className="underline" href={`/bench?rows=${rows.join('~')}&cols=none~p:${version}~jpeg`}>
        see it on the bench
      </Link>
      , on frames of {cameras.join(', ') || 'its camera'}.
    </>
  );
}
