import { bodyOf } from '@/core/frame/body';
import { fittingFrame } from '@/core/records/fitting-frame';
import { signedInPerson } from '@/server/http';
import { may } from '@/server/people/roles';
import { WillItShow } from '@/ui/item/WillItShow';
import { framesOfRequest, itemOfRequest, type PageProps } from '../request';

interface Props extends Pick<PageProps, 'searchParams'> {
  id: string;
}

/** Whether editors will show the item for a photo like one of the frames. */
export async function Showing({ id, searchParams }: Props) {
  const [frames, search, { item }, person] = await Promise.all([
    framesOfRequest(),
    searchParams,
    itemOfRequest(id),
    signedInPerson(),
  ]);
  const fits = fittingFrame(
    { kind: item.kind, cameras: item.cameras, input: item.scope.input ?? null, result: item.scope.result ?? null },
    frames.map((frame) => ({
      id: frame.id,
      kind: frame.file_kind,
      body: bodyOf(frame),
      range: frame.dynamic_range,
      result: frame.result,
    })),
  );
  return (
    <WillItShow
      itemId={id}
      frame={frames.find((frame) => frame.id === search.frame)?.id ?? fits?.id ?? ''}
      frames={frames.map(({ id: frame, name, file_kind, camera }) => ({ id: frame, name, file_kind, camera }))}
      may={{
        plan: may(person, 'rollout.plan'),
        approve: may(person, 'item.approve'),
        archive: may(person, 'item.archive'),
        convert: may(person, 'item.convert'),
        bringIn: may(person, 'arrival.make'),
        runEditor: may(person, 'station.editor'),
      }}
    />
  );
}
