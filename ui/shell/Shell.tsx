import Link from 'next/link';
import { Suspense, type ReactNode } from 'react';
import { Connection } from './Connection';
import { KeysOfScreen } from './KeysOfScreen';
import { NavLinks } from './NavLinks';
import { Opening } from './Opening';
import { PaletteKey } from './PaletteKey';
import { PersonMenu } from './PersonMenu';
import { ReturnFocus } from './ReturnFocus';
import { SearchBox } from './SearchBox';
import { SignInAgain } from './SignInAgain';

/** The application's frame: wordmark, search, navigation of the screens that exist, the person. */
export function Shell({
  person,
  counts,
  may,
  moment,
  children,
}: {
  person: { name: string; email: string; role: string };
  counts: Record<string, number>;
  /** of the actions that screens need, those that the person may do */ may: readonly string[];
  /** of the log, when the page was made */ moment: string;
  children: ReactNode;
}) {
  return (
    <div
      data-moment={moment}
      className="grid min-h-screen grid-cols-[176px_minmax(0,1fr)] grid-rows-[52px_1fr] max-[900px]:grid-cols-[minmax(0,1fr)] max-[900px]:grid-rows-[52px_auto_1fr]"
    >
      <a
        href="#main"
        className="sr-only focus:not-sr-only focus:absolute focus:left-2 focus:top-2 focus:z-50 focus:bg-paper focus:px-3 focus:py-2"
      >
        Skip to the content
      </a>
      <header className="sticky top-0 z-30 col-span-full flex items-center gap-4 border-b border-line bg-sheet px-5">
        <Link
          prefetch={false}
          href="/shelves"
          className="w-[138px] shrink-0 max-[900px]:w-auto font-serif text-[23px] tracking-tight"
          aria-label="Etagere, to the shelves"
        >
          Eta<span className="text-verd">gere</span>
        </Link>
        <SearchBox />
        <PaletteKey may={may} />
        <PersonMenu person={person} />
      </header>
      <nav
        aria-label="Screens"
        className="sticky top-[52px] h-[calc(100vh-52px)] overflow-y-auto border-r border-line py-4 max-[900px]:static max-[900px]:flex max-[900px]:h-auto max-[900px]:flex-wrap max-[900px]:border-b max-[900px]:border-r-0 max-[900px]:py-1"
      >
        <NavLinks counts={counts} may={may} />
      </nav>
      <KeysOfScreen />
      <ReturnFocus />
      <Suspense>
        <Opening />
      </Suspense>
      <SignInAgain name={person.name} email={person.email} />
      <div className="min-w-0">
        <Connection />
        <main id="main">{children}</main>
      </div>
    </div>
  );
}

export function PageHead({ title, note, children }: { title: ReactNode; note?: ReactNode; children?: ReactNode }) {
  return (
    <div className="mb-4 flex flex-wrap items-baseline gap-x-3.5 gap-y-2">
      <h1 className="min-w-0 text-[26px] leading-tight [overflow-wrap:anywhere]">{title}</h1>
      {note && <p className="text-soft">{note}</p>}
      {children && <div className="ml-auto flex flex-wrap items-center gap-2 self-center">{children}</div>}
    </div>
  );
}
