'use client';
/** The shell of every dialog: title, a way to close it, and room for what it is about. Escape and a click beside it close it too. */
import { Dialog } from 'radix-ui';
import type { ReactNode } from 'react';
import { focusBack } from './focus-history';
import './nonce';

interface Props {
  title: string;
  onClose: () => void;
  /** in pixels; never wider than the window */ width?: number;
  /** how far from the top of the window */ top?: string;
  /** what stands beside the title */ beside?: ReactNode;
  children: ReactNode;
}

export function Modal({ title, onClose, width = 460, top = '14vh', beside, children }: Props) {
  return (
    <Dialog.Root
      open
      onOpenChange={(open) => {
        if (!open) onClose();
      }}
    >
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/30" />
        <Dialog.Content
          aria-describedby={undefined}
          onCloseAutoFocus={(event) => {
            // it has no trigger of its own: many things open it
            if (focusBack()) event.preventDefault();
          }}
          className="fixed left-1/2 z-50 flex max-w-[94vw] -translate-x-1/2 flex-col overflow-auto border border-line bg-paper p-4"
          style={{ width, top, maxHeight: `calc(96vh - ${top})`, boxShadow: 'var(--shade)' }}
        >
          <div className="mb-2 flex items-baseline gap-3">
            <Dialog.Title className="min-w-0 flex-1 text-[18px]">{title}</Dialog.Title>
            {beside}
          </div>
          {children}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

interface FootProps {
  cancel?: string;
  /** what stands apart from the rest, at the other end */ apart?: ReactNode;
  children?: ReactNode;
}

/** The row of buttons at the foot of a dialog: what closes it without doing anything, then what it is for. */
export function ModalFoot({ cancel = 'Cancel', apart, children }: FootProps) {
  return (
    <div className="mt-4 flex items-center justify-end gap-2">
      {apart && <div className="mr-auto">{apart}</div>}
      <Dialog.Close className="button quiet">{cancel}</Dialog.Close>
      {children}
    </div>
  );
}
