'use client';
/** Where toasts are shown: one above the other, at the foot of the page. F8 brings the focus there; Escape closes one. */
import { X } from 'lucide-react';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { Toast as Radix } from 'radix-ui';
import { useCallback, useRef, useState, type ReactNode } from 'react';
import { problemOf } from './call';
import { ToastContext, type Toast } from './toast';

const SECONDS = 12;
const MOST = 3;

interface Shown extends Toast {
  id: number;
  tone?: 'problem';
}

export function Toasts({ children }: { children: ReactNode }) {
  const router = useRouter();
  const [all, setAll] = useState<readonly Shown[]>([]);
  const last = useRef(0);
  const tell = useCallback((toast: Omit<Shown, 'id'>) => {
    last.current++;
    const id = last.current;
    setAll((before) => [...before, { ...toast, id }].slice(-MOST));
  }, []);
  const close = (id: number) => setAll((before) => before.filter((one) => one.id !== id));
  const undo = async ({ id, undo: putBack }: Shown) => {
    close(id);
    try {
      await putBack?.();
      tell({ words: 'Undone.' });
      router.refresh();
    } catch (error) {
      const { message, remedy } = problemOf(error);
      tell({ words: `${message} ${remedy}`, tone: 'problem' });
    }
  };
  return (
    <ToastContext value={tell}>
      <Radix.Provider duration={SECONDS * 1000} label="What was done" swipeDirection="down">
        {children}
        {all.map((one) => (
          <OneToast key={one.id} toast={one} onClose={() => close(one.id)} onUndo={() => void undo(one)} />
        ))}
        <Radix.Viewport className="fixed bottom-4 left-1/2 z-[60] m-0 flex w-[560px] max-w-[94vw] -translate-x-1/2 list-none flex-col gap-2 p-0" />
      </Radix.Provider>
    </ToastContext>
  );
}

interface OneProps {
  toast: Shown;
  onClose: () => void;
  onUndo: () => void;
}

function OneToast({ toast: { words, link, undo, tone }, onClose, onUndo }: OneProps) {
  return (
    <Radix.Root
      type={tone ? 'foreground' : 'background'}
      className="flex items-center gap-3 border border-line-strong bg-paper px-3.5 py-2.5"
      style={{ boxShadow: 'var(--shade)' }}
      onOpenChange={(open) => {
        if (!open) onClose();
      }}
    >
      <Radix.Description className={`min-w-0 flex-1 [overflow-wrap:anywhere] ${tone ? 'text-madder' : ''}`}>
        {words}
      </Radix.Description>
      {link && (
        <Link className="underline" href={link.href} onClick={onClose}>
          {link.words}
        </Link>
      )}
      {undo && (
        <Radix.Action asChild altText="Undo it in the activity" onClick={onUndo}>
          <button className="button">Undo</button>
        </Radix.Action>
      )}
      <Radix.Close aria-label="Close" className="button quiet !px-1.5">
        <X aria-hidden size={14} />
      </Radix.Close>
    </Radix.Root>
  );
}
