'use client';
import { Ellipsis } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';

interface Props {
  name: string;
  mayEdit: boolean;
  empty: boolean;
  onAway: () => void;
  onRename: () => void;
  onMove: (by: -1 | 1) => void;
  onHeadings: () => void;
  onRemove: () => void;
}
const item = 'cursor-default px-3 py-1.5 outline-none data-[highlighted]:bg-verd-wash data-[disabled]:opacity-50';

/** What can be done with a shelf. */
export function ShelfMenu({ name, mayEdit, empty, onAway, onRename, onMove, onHeadings, onRemove }: Props) {
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger className="button quiet !h-[22px] self-center" aria-label={`The shelf ${name}`}>
        <Ellipsis aria-hidden size={14} />
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="start"
          className="z-40 min-w-[160px] border border-line bg-paper py-1 font-sans"
          style={{ boxShadow: 'var(--shade)' }}
        >
          <DropdownMenu.Item className={item} onSelect={onAway}>
            Put away, for me
          </DropdownMenu.Item>
          {mayEdit && (
            <>
              <DropdownMenu.Item className={item} onSelect={onRename}>
                Rename
              </DropdownMenu.Item>
              <DropdownMenu.Item className={item} onSelect={() => onMove(-1)}>
                Move up
              </DropdownMenu.Item>
              <DropdownMenu.Item className={item} onSelect={() => onMove(1)}>
                Move down
              </DropdownMenu.Item>
              <DropdownMenu.Item className={item} disabled={empty} onSelect={onHeadings}>
                Order by headings
              </DropdownMenu.Item>
              <DropdownMenu.Item className={item} disabled={!empty} onSelect={onRemove}>
                Take the shelf away
              </DropdownMenu.Item>
            </>
          )}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
