import type { ReactNode } from 'react';
import { threads } from '@/core/look/selvedge';

const hex = (values: readonly number[]) =>
  '#' +
  values
    .map((c) =>
      Math.round(c * 255)
        .toString(16)
        .padStart(2, '0'),
    )
    .join('');

/** The page before the library: one spine wide, with the twelve fixed threads as its only color. */
export function Door({ title, note, children }: { title: string; note: string; children: ReactNode }) {
  return (
    <main className="grid min-h-screen place-items-center px-4">
      <div className="w-[352px]">
        <div className="border border-b-0 border-line bg-paper">
          <div aria-hidden className="flex h-[74px] flex-col">
            {threads.map((hue, i) => (
              <span key={i} className="flex-1" style={{ background: hex(hue) }} />
            ))}
          </div>
          <div className="px-7 pb-8 pt-6">
            <p className="mb-5 font-serif text-[27px] leading-none tracking-tight">
              Eta<span className="text-verd">gere</span>
            </p>
            <h1 className="text-[19px]">{title}</h1>
            <p className="mb-5 text-soft">{note}</p>
            {children}
          </div>
        </div>
        <div className="ledge -mx-5" />
      </div>
    </main>
  );
}
