'use client';
/** A place to drop files and folders on, or to choose them. */
import { useRef, useState, type ChangeEvent, type DragEvent, type ReactNode } from 'react';
import { fromDrop, fromInput, type Dropped } from './collect';

interface Choice {
  /** on the button */ words: string;
  /** for those who do not see it */ label: string;
}

interface Props {
  icon: ReactNode;
  title: string;
  note: string;
  folder: Choice;
  files: Choice;
  onFiles: (dropped: readonly Dropped[]) => void;
}

export function DropTarget({ icon, title, note, folder, files, onFiles }: Props) {
  const [isOver, setOver] = useState(false);
  const onDrop = (event: DragEvent) => {
    event.preventDefault();
    setOver(false);
    void fromDrop(event.dataTransfer.items, event.dataTransfer.files).then(onFiles);
  };
  return (
    <div
      onDragOver={(event) => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={onDrop}
      className={`flex flex-wrap items-center gap-x-5 gap-y-2 border border-dashed px-6 py-5 ${isOver ? 'border-verd bg-verd-wash' : 'border-line-strong bg-sheet'}`}
    >
      {icon}
      <div className="min-w-0">
        <p className="font-serif text-[17px]">{title}</p>
        <p className="text-soft">{note}</p>
      </div>
      <div className="ml-auto flex gap-2">
        <Chooser {...folder} isFolder onFiles={onFiles} />
        <Chooser {...files} onFiles={onFiles} />
      </div>
    </div>
  );
}

/** A button, and the field behind it that the browser opens. */
function Chooser({
  words,
  label,
  isFolder = false,
  onFiles,
}: Choice & { isFolder?: boolean } & Pick<Props, 'onFiles'>) {
  const input = useRef<HTMLInputElement | null>(null);
  const onChange = (event: ChangeEvent<HTMLInputElement>) => {
    if (event.target.files) onFiles(fromInput(event.target.files));
    // so that the same files can be chosen again
    event.target.value = '';
  };
  return (
    <>
      <button className="button" onClick={() => input.current?.click()}>
        {words}
      </button>
      <input
        ref={(element) => {
          input.current = element;
          if (isFolder) element?.setAttribute('webkitdirectory', '');
        }}
        type="file"
        multiple
        className="sr-only"
        aria-label={label}
        tabIndex={-1}
        onChange={onChange}
      />
    </>
  );
}
