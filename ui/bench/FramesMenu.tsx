'use client';
import { Plus } from 'lucide-react';
import { bodyOf } from '@/core/frame/body';
import { groupBy } from '@/core/lists';
import { Menu, MenuEntry, MenuLine, SubMenu } from '../kit/Menu';
import type { FrameSet } from './bench-context';
import type { FrameOnBench } from './model/frame';

interface Props {
  frames: readonly FrameOnBench[];
  sets: readonly FrameSet[];
  /** there is no room for another row */ full: boolean;
  isLaid: (id: string) => boolean;
  onSet: (frames: string[]) => void;
  onFrame: (id: string) => void;
}

const groupings: { title: string; of: (frame: FrameOnBench) => string }[] = [
  { title: 'By camera', of: bodyOf },
  { title: 'By light', of: (frame) => frame.light },
  { title: 'By subject', of: (frame) => frame.subject },
];

const aboutFrame = (frame: FrameOnBench): string =>
  [frame.chart_id ? 'target' : '', frame.file_kind === 'camera data' ? 'camera data' : 'rendered']
    .filter(Boolean)
    .join(', ');

/** What can be laid on the bench as rows. */
export function FramesMenu({ frames: all, sets, full, isLaid, onSet, onFrame }: Props) {
  const frames = all.filter((frame) => !frame.archived);
  return (
    <Menu title="Frames" before={<Plus aria-hidden size={13} />}>
      {sets.map((set) => (
        <MenuEntry
          key={set.id}
          words={set.name}
          beside={`set of ${set.frames.length}`}
          onSelect={() => onSet(set.frames)}
        />
      ))}
      {sets.length > 0 && <MenuLine />}
      {groupings.map(({ title, of }) => {
        const groups = [...groupBy(frames.filter(of), of)];
        if (!groups.length) return null;
        return (
          <SubMenu key={title} title={title}>
            {groups.map(([name, list]) => (
              <MenuEntry
                key={name}
                words={name}
                beside={`${list.length}`}
                onSelect={() => onSet(list.map((frame) => frame.id))}
              />
            ))}
          </SubMenu>
        );
      })}
      <MenuLine />
      {frames.map((frame) => (
        <MenuEntry
          key={frame.id}
          words={frame.name}
          beside={aboutFrame(frame)}
          off={full || isLaid(frame.id)}
          onSelect={() => onFrame(frame.id)}
        />
      ))}
    </Menu>
  );
}
