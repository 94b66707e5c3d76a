'use client';
/** What can be laid on the bench, and what was kept of it. */
import { ChevronRight, Plus } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import type { ReactNode } from 'react';
import { bodyOf } from '@/core/frame/body';
import { groupBy } from '../kit/group';
import type { FrameOnBench } from './RowHead';

const entry =
  'flex cursor-default justify-between gap-6 px-3 py-1.5 outline-none data-[highlighted]:bg-verd-wash data-[disabled]:text-soft';
const line = <DropdownMenu.Separator className="my-1 border-t border-line" />;

function Menu({ title, plus, children }: { title: string; plus?: boolean; children: ReactNode }) {
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger className="button">
        {plus && <Plus aria-hidden size={13} />}
        {title}
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="end"
          className="z-40 max-h-[60vh] min-w-[230px] overflow-auto border border-line bg-paper py-1"
          style={{ boxShadow: 'var(--shade)' }}
        >
          {children}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
const Entry = ({
  words,
  beside,
  off,
  onSelect,
}: {
  words: string;
  beside?: string;
  off?: boolean;
  onSelect: () => void;
}) => (
  <DropdownMenu.Item className={entry} disabled={off ?? false} onSelect={onSelect}>
    <span>{words}</span>
    {beside && <span className="text-soft">{beside}</span>}
  </DropdownMenu.Item>
);

export function FramesMenu({
  frames,
  sets,
  full,
  on,
  onSet,
  onFrame,
}: {
  frames: FrameOnBench[];
  sets: { id: string; name: string; frames: string[] }[];
  full: boolean;
  on: (id: string) => boolean;
  onSet: (frames: string[]) => void;
  onFrame: (id: string) => void;
}) {
  return (
    <Menu title="Frames" plus>
      {sets.map((s) => (
        <Entry key={s.id} words={s.name} beside={`set of ${s.frames.length}`} onSelect={() => onSet(s.frames)} />
      ))}
      {sets.length > 0 && line}
      {(
        [
          ['By camera', (f: FrameOnBench) => bodyOf(f)],
          ['By light', (f: FrameOnBench) => f.light],
          ['By subject', (f: FrameOnBench) => f.subject],
        ] as const
      ).map(([title, of]) => {
        const groups = [
          ...groupBy(
            frames.filter((f) => of(f)),
            of,
          ),
        ];
        return (
          groups.length > 0 && (
            <DropdownMenu.Sub key={title}>
              <DropdownMenu.SubTrigger className={entry}>
                {title}
                <ChevronRight aria-hidden size={13} className="self-center" />
              </DropdownMenu.SubTrigger>
              <DropdownMenu.Portal>
                <DropdownMenu.SubContent
                  className="z-50 max-h-[60vh] min-w-[210px] overflow-auto border border-line bg-paper py-1"
                  style={{ boxShadow: 'var(--shade)' }}
                >
                  {groups.map(([name, list]) => (
                    <Entry
                      key={name}
                      words={name}
                      beside={`${list.length}`}
                      onSelect={() => onSet(list.map((f) => f.id))}
                    />
                  ))}
                </DropdownMenu.SubContent>
              </DropdownMenu.Portal>
            </DropdownMenu.Sub>
          )
        );
      })}
      {line}
      {frames.map((frame) => (
        <Entry
          key={frame.id}
          words={frame.name}
          beside={[frame.chart_id ? 'target' : '', frame.file_kind === 'camera data' ? 'camera data' : 'rendered']
            .filter(Boolean)
            .join(', ')}
          off={full || on(frame.id)}
          onSelect={() => onFrame(frame.id)}
        />
      ))}
    </Menu>
  );
}

export function CandidatesMenu({
  shelves,
  labels,
  cameras,
  mayBring,
  onFind,
  onProfiles,
  onColumn,
  onShelf,
  onBring,
}: {
  shelves: { id: string; name: string }[];
  labels: string[];
  cameras: boolean;
  mayBring: boolean;
  onFind: () => void;
  onProfiles: () => void;
  onColumn: (profile: string) => void;
  onShelf: (id: string) => void;
  onBring: () => void;
}) {
  return (
    <Menu title="Candidates" plus>
      <Entry words="Find one by name" onSelect={onFind} />
      <Entry words="The profiles of these cameras" off={!cameras} onSelect={onProfiles} />
      <Entry words="The camera’s own JPEG" onSelect={() => onColumn('jpeg')} />
      <Entry words="No look" onSelect={() => onColumn('plain')} />
      {labels.map((line) => (
        <Entry key={line} words={`Export: ${line}`} onSelect={() => onColumn(`x:${line}`)} />
      ))}
      {mayBring && <Entry words="Bring in an editor’s export" onSelect={onBring} />}
      {line}
      {shelves.map((s) => (
        <Entry key={s.id} words={`All on ${s.name}`} onSelect={() => onShelf(s.id)} />
      ))}
    </Menu>
  );
}

export function KeptMenu({
  saved,
  some,
  maySet,
  onKeep,
  onSet,
  onOpen,
}: {
  saved: { id: string; name: string; state: string; person: string; mine: boolean }[];
  some: boolean;
  maySet: boolean;
  onKeep: () => void;
  onSet: () => void;
  onOpen: (address: string) => void;
}) {
  return (
    <Menu title="Kept">
      <Entry words="Keep this bench" off={!some} onSelect={onKeep} />
      {maySet && <Entry words="Keep these frames as a set" off={!some} onSelect={onSet} />}
      {saved.length > 0 && line}
      {saved.map((b) => (
        <Entry key={b.id} words={b.name} beside={b.mine ? 'mine' : b.person} onSelect={() => onOpen(b.state)} />
      ))}
    </Menu>
  );
}
