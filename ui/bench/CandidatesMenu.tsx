'use client';
import { Plus } from 'lucide-react';
import { Menu, MenuEntry, MenuLine } from '../kit/Menu';
import type { Source } from './model/column';

interface Props {
  shelves: readonly { id: string; name: string }[];
  /** of the editors' exports */ labels: readonly string[];
  hasCameras: boolean;
  mayBring: boolean;
  onFind: () => void;
  onProfiles: () => void;
  onSource: (source: Source) => void;
  onShelf: (id: string) => void;
  onBring: () => void;
}

/** What can be laid on the bench as columns. */
export function CandidatesMenu(props: Props) {
  const { shelves, labels, hasCameras, mayBring, onFind, onProfiles, onSource, onShelf, onBring } = props;
  return (
    <Menu title="Candidates" before={<Plus aria-hidden size={13} />}>
      <MenuEntry words="Find one by name" onSelect={onFind} />
      <MenuEntry words="The profiles of these cameras" off={!hasCameras} onSelect={onProfiles} />
      <MenuEntry words="The camera’s own JPEG" onSelect={() => onSource({ from: 'camera-jpeg' })} />
      <MenuEntry words="No look" onSelect={() => onSource({ from: 'frame' })} />
      {labels.map((label) => (
        <MenuEntry key={label} words={`Export: ${label}`} onSelect={() => onSource({ from: 'export', label })} />
      ))}
      {mayBring && <MenuEntry words="Bring in an editor’s export" onSelect={onBring} />}
      <MenuLine />
      {shelves.map((shelf) => (
        <MenuEntry key={shelf.id} words={`All on ${shelf.name}`} onSelect={() => onShelf(shelf.id)} />
      ))}
    </Menu>
  );
}
