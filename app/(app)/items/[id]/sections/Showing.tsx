import { WillItShow } from '@/ui/item/WillItShow';
import { framesOfRequest, type PageProps } from '../request';

interface Props extends Pick<PageProps, 'searchParams'> {
  id: string;
}

/** Whether editors will show the item for a photo like one of the frames. */
export async function Showing({ id, searchParams }: Props) {
  const [frames, search] = await Promise.all([framesOfRequest(), searchParams]);
  return (
    <WillItShow
      itemId={id}
      frame={frames.find((frame) => frame.id === search.frame)?.id ?? frames[0]?.id ?? ''}
      frames={frames.map(({ id: frame, name, file_kind, camera }) => ({ id: frame, name, file_kind, camera }))}
    />
  );
}
