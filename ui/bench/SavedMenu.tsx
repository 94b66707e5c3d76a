'use client';
import { Menu, MenuEntry, MenuLine } from '../kit/Menu';
import type { SavedBench } from './bench-context';

interface Props {
  saved: readonly SavedBench[];
  hasRows: boolean;
  maySaveSet: boolean;
  onSave: () => void;
  onSaveSet: () => void;
  onOpen: (address: string) => void;
}

/** Benches that were saved, and saving this one. */
export function SavedMenu({ saved, hasRows, maySaveSet, onSave, onSaveSet, onOpen }: Props) {
  return (
    <Menu title="Saved">
      <MenuEntry words="Save this bench" off={!hasRows} onSelect={onSave} />
      {maySaveSet && <MenuEntry words="Save these frames as a set" off={!hasRows} onSelect={onSaveSet} />}
      {saved.length > 0 && <MenuLine />}
      {saved.map((bench) => (
        <MenuEntry
          key={bench.id}
          words={bench.name}
          beside={bench.mine ? 'mine' : bench.person}
          onSelect={() => onOpen(bench.state)}
        />
      ))}
    </Menu>
  );
}
