'use client';
/** The keys of a screen. */
import { Modal, ModalFoot } from '../kit/Modal';
import { keysAt } from './model/keys';

export function KeysDialog({ path, onClose }: { path: string; onClose: () => void }) {
  return (
    <Modal title="Keys" width={520} top="10vh" onClose={onClose}>
      {keysAt(path).map(({ title, lines }) => (
        <section key={title} aria-label={title} className="mb-3">
          <h3 className="mb-1 text-[15px]">{title}</h3>
          <dl className="border-t border-line">
            {lines.map(({ press, words }) => (
              <div key={words} className="grid grid-cols-[150px_1fr] gap-3 border-b border-line py-1">
                <dt>
                  {press.map((key) => (
                    <kbd key={key} className="key mr-0.5">
                      {key}
                    </kbd>
                  ))}
                </dt>
                <dd>{words}</dd>
              </div>
            ))}
          </dl>
        </section>
      ))}
      <ModalFoot cancel="Close" />
    </Modal>
  );
}
