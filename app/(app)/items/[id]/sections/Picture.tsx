import { bodyOf } from '@/core/frame/body';
import { ItemView } from '@/ui/item/ItemView';
import { ProfileView } from '@/ui/item/ProfileView';
import { kindWords } from '@/ui/shelves/model/spine';
import { formOfRequest, framesOfRequest, itemOfRequest, presetOfRequest, type PageProps } from '../request';

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
  const { item } = await itemOfRequest(id);
  const [frames, search, shown] = await Promise.all([framesOfRequest(), searchParams, formOfRequest(id, searchParams)]);
  if (item.kind === 'look' || item.kind === 'preset')
    return (
      <ItemView
        title={item.title}
        versionId={shown.id}
        least={item.strength_least}
        most={item.strength_most}
        frames={frames}
        frame={frames.find((frame) => frame.id === search.frame)?.id ?? frames[0]?.id ?? ''}
        strength={strengthOf(search.strength)}
        preset={await presetOfRequest(id, searchParams)}
      />
    );
  if (item.kind === 'camera-profile' && shown.format === 'dcp')
    return <ProfilePicture id={id} versionId={shown.id} wanted={search.frame} />;
  return (
    <p className="border border-dashed border-line-strong p-8 text-soft">
      {kindWords[item.kind] ?? item.kind}s are judged by their facts, not on frames.
    </p>
  );
}

interface ProfileProps {
  id: string;
  versionId: string;
  wanted: string | undefined;
}

/** A camera profile on frames of its cameras; a general one on all camera data. */
async function ProfilePicture({ id, versionId, wanted }: ProfileProps) {
  const [{ item }, frames] = await Promise.all([itemOfRequest(id), framesOfRequest()]);
  const fitting = frames.filter(
    (frame) => frame.file_kind === 'camera data' && (item.cameras.length === 0 || item.cameras.includes(bodyOf(frame))),
  );
  if (!fitting.length)
    return (
      <p className="border border-dashed border-line-strong p-8 text-soft">
        A camera profile develops camera data, and no frame is of {item.cameras.join(', ') || 'any camera'}. Take in a
        DNG of it as a frame.
      </p>
    );
  const rows = fitting.slice(0, FRAMES).map((frame) => frame.id);
  return (
    <ProfileView
      title={item.title}
      versionId={versionId}
      frames={fitting.map(({ id: frame, name, light }) => ({ id: frame, name, light }))}
      frame={fitting.find((frame) => frame.id === wanted)?.id ?? fitting[0]?.id ?? ''}
      bench={`/bench?rows=${rows.join('~')}&cols=none~p:${versionId}~jpeg`}
    />
  );
}
