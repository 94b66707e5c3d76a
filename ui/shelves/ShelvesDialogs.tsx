'use client';
/** The dialogs of the shelves: one at a time. */
import { useRouter } from 'next/navigation';
import { call } from '../kit/call';
import { NameDialog } from '../kit/NameDialog';
import { useToast } from '../kit/toast';
import { counted } from '../kit/words';
import { BulkEdit } from './BulkEdit';
import { ConfirmEncodings } from './ConfirmEncodings';
import { narrowing } from './model/address';
import type { ShelfView } from './model/spine';
import { useShelves, type Asking } from './shelves-context';

export function ShelvesDialogs({ asking }: { asking: Asking }) {
  switch (asking.what) {
    case 'rename the shelf':
      return <RenameShelf shelf={asking.shelf} />;
    case 'make a shelf':
      return <MakeShelf />;
    case 'save the search':
      return <SaveSearch />;
    case 'change the chosen':
      return <ChangeChosen />;
    case 'confirm encodings':
      return <ConfirmEncodings />;
  }
}

function RenameShelf({ shelf }: { shelf: ShelfView }) {
  const { ask } = useShelves();
  const router = useRouter();
  return (
    <NameDialog
      title="Rename the shelf"
      action="Rename"
      name={shelf.name}
      note={shelf.note}
      onClose={() => ask(null)}
      onSave={async (name, note) => {
        await call('PATCH /api/shelves/:id', { id: shelf.id, body: { name, note } });
        ask(null);
        router.refresh();
      }}
    />
  );
}

function MakeShelf() {
  const { ask } = useShelves();
  const router = useRouter();
  return (
    <NameDialog
      title="A new shelf"
      action="Make it"
      onClose={() => ask(null)}
      onSave={async (name, note) => {
        await call('POST /api/shelves', { body: { name, note } });
        ask(null);
        router.refresh();
      }}
    />
  );
}

function SaveSearch() {
  const { ask, params } = useShelves();
  const router = useRouter();
  const query = Object.fromEntries(
    [...params].filter(([key]) => narrowing.includes(key) && key !== 'shelf' && key !== 'archived'),
  );
  return (
    <NameDialog
      title="A shelf that fills itself by this search"
      action="Save"
      name={params.get('q') ?? ''}
      onClose={() => ask(null)}
      onSave={async (name, note) => {
        const { id } = await call('POST /api/shelves', { body: { name, note, query } });
        ask(null);
        router.push(`/shelves?shelf=${id}`);
      }}
    />
  );
}

function ChangeChosen() {
  const { ask, selection, chooseNothing, licences } = useShelves();
  const tell = useToast();
  const router = useRouter();
  return (
    <BulkEdit
      items={[...selection.keys()]}
      licences={licences}
      onClose={() => ask(null)}
      onDone={({ changed, undo }) => {
        ask(null);
        chooseNothing();
        tell({
          words: `${counted(changed, 'item')} changed.`,
          ...(undo.first ? { undo: () => call('POST /api/items/bulk/undo', { body: undo }) } : {}),
        });
        router.refresh();
      }}
    />
  );
}
