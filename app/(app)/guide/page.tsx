import Link from 'next/link';
import { signedInPerson } from '@/server/http';
import { may, type Action } from '@/server/people/roles';
import { PageHead } from '@/ui/shell/Shell';

export const metadata = { title: 'Five minutes with Etagere' };

interface Part {
  title: string;
  href: string;
  go: string;
  words: string;
  /** in the demo data */ demo: string;
  needs?: Action;
}

const parts: readonly Part[] = [
  {
    title: 'Take a delivery in',
    href: '/intake',
    go: 'Open Intake',
    words:
      'Drop a ZIP or a folder. Every file is read: what is new, which version it is of what you hold, what is a copy under another name, what is broken. Correct what you know better, then accept.',
    demo: '“Fathom Color - Stage set” waits to be settled: one table of it is broken, and some of it is held already.',
    needs: 'arrival.accept',
  },
  {
    title: 'Find something on the shelves',
    href: '/shelves',
    go: 'Open Shelves',
    words:
      'Type a few letters, walk with the arrows, and see each look on a frame as you pass it. The stripes on a spine are what the look does to twelve colors: left as it was, right as it becomes.',
    demo: 'Type “amber” and press Enter, then the down arrow.',
  },
  {
    title: 'Judge on the bench',
    href: '/bench',
    go: 'Open the bench',
    words:
      'Looks and camera profiles side by side on the same frames, at the same white. Trim, split, compare blind, and keep what was chosen and why.',
    demo: 'Choose four house looks on the shelves with the space bar, then “On the bench”.',
    needs: 'verdict.give',
  },
  {
    title: 'Convert a preset into a look',
    href: '/shelves?kind=preset',
    go: 'See the presets',
    words:
      'A preset of one editor becomes a table that others read. What a table cannot carry is named, and how far the result is off is measured.',
    demo: 'Open “Engraver”, then “Convert into a look”.',
    needs: 'item.convert',
  },
  {
    title: 'Roll it out, and see it listed',
    href: '/rollouts/new',
    go: 'Plan a rollout',
    words:
      'Choose approved items and workstations. Each file is shown before it is written, and afterwards what each editor lists. All of it can be undone.',
    demo: 'Roll “Amber Proscenium” out to Glaze desk and Model room.',
    needs: 'rollout.plan',
  },
];

export default async function Page() {
  const person = await signedInPerson();
  const mine = parts.filter(({ needs }) => !needs || may(person, needs));
  return (
    <div className="max-w-[760px] px-6 pb-16 pt-[18px]">
      <PageHead title="Five minutes with Etagere" note="what it is for, one step after the other" />
      <ol className="border-t border-line">
        {mine.map(({ title, href, go, words, demo }, place) => (
          <li key={title} className="grid grid-cols-[34px_1fr] gap-x-2 border-b border-line py-4">
            <span aria-hidden className="font-serif text-[24px] leading-none text-soft">
              {place + 1}
            </span>
            <div>
              <h2 className="mb-1 text-[17px]">{title}</h2>
              <p className="mb-1.5">{words}</p>
              <p className="mb-2 text-soft">In the demo data: {demo}</p>
              <Link className="button" href={href}>
                {go}
              </Link>
            </div>
          </li>
        ))}
      </ol>
      <p className="mt-4 text-soft">
        Ctrl and K finds items, screens and tasks from anywhere; a question mark shows the keys of a screen.
      </p>
    </div>
  );
}
