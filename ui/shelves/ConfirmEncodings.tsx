'use client';
/** Says of all the chosen looks at once what their values mean, where that is only assumed. */
import { useRouter } from 'next/navigation';
import { assumedEncoding } from '@/core/look/look';
import { EncodingForm } from '../item/EncodingForm';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Modal } from '../kit/Modal';
import { Notice } from '../kit/Notice';
import { useToast } from '../kit/toast';
import { counted } from '../kit/words';
import { useShelves } from './shelves-context';

export function ConfirmEncodings() {
  const { ask, selection, chooseNothing } = useShelves();
  const router = useRouter();
  const action = useAction();
  const tell = useToast();
  const looks = [...selection.values()].filter((spine) => spine.assumed);
  return (
    <Modal title={`Confirm the encoding of ${counted(looks.length, 'look')}`} width={560} onClose={() => ask(null)}>
      <p className="text-soft">
        Their files do not say what their values mean. What you say here holds for all of them: if they are not all from
        one source, confirm them apart.
      </p>
      <p className="mt-2 line-clamp-3">{looks.map((look) => look.title).join(', ')}</p>
      <Notice problem={action.problem} className="mt-2" />
      <EncodingForm
        encoding={assumedEncoding}
        busy={action.busy}
        onClose={() => ask(null)}
        onConfirm={(encoding) =>
          void action.run(async () => {
            const body = { items: looks.map((look) => look.id), encoding };
            const { versions } = await call('POST /api/items/encoding', { body });
            tell({ words: `The encoding of ${counted(versions, 'look')} is confirmed.` });
            ask(null);
            chooseNothing();
            router.refresh();
          })
        }
      />
    </Modal>
  );
}
