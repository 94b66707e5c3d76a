'use client';
/** Says of several looks at once what their values mean, where that is only assumed. */
import { useRouter } from 'next/navigation';
import { assumedEncoding } from '@/core/look/look';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Modal } from '../kit/Modal';
import { Notice } from '../kit/Notice';
import { useToast } from '../kit/toast';
import { counted } from '../kit/words';
import { EncodingForm } from './EncodingForm';

interface Props {
  looks: readonly { id: string; title: string }[];
  onClose: () => void;
  onDone?: () => void;
}

export function EncodingOfMany({ looks, onClose, onDone }: Props) {
  const router = useRouter();
  const action = useAction();
  const tell = useToast();
  return (
    <Modal title={`Confirm the encoding of ${counted(looks.length, 'look')}`} width={560} onClose={onClose}>
      <p className="text-soft">
        Their files do not say what their values mean. What you say here holds for all of them: if they are not all from
        one source, confirm them apart.
      </p>
      <p className="mt-2 line-clamp-3">{looks.map((look) => look.title).join(', ')}</p>
      <Notice problem={action.problem} className="mt-2" />
      <EncodingForm
        encoding={assumedEncoding}
        busy={action.busy}
        onClose={onClose}
        onConfirm={(encoding) =>
          void action.run(async () => {
            const body = { items: looks.map((look) => look.id), encoding };
            const { versions } = await call('POST /api/items/encoding', { body });
            tell({ words: `The encoding of ${counted(versions, 'look')} is confirmed.` });
            onClose();
            onDone?.();
            router.refresh();
          })
        }
      />
    </Modal>
  );
}
