/** A preset and the look that was made from it in one plan: said before it is confirmed, with the remedy. */
import Link from 'next/link';

interface DoubleEffect {
  preset: string;
  look: { id: string; title: string };
  calls: boolean;
}

const SHOWN = 5;

export function DoubleEffects({ effects }: { effects: readonly DoubleEffect[] }) {
  const more = effects.length - SHOWN;
  return (
    <>
      {effects.slice(0, SHOWN).map(({ preset, look, calls }) => (
        <p key={`${preset} ${look.id}`} role="status" className="mb-3 max-w-[760px] border-l-[3px] border-ochre pl-3">
          {preset} {calls ? 'calls' : 'goes to the same editor as'}{' '}
          <Link className="underline" href={`/items/${look.id}`}>
            {look.title}
          </Link>
          , which was made from it: {calls ? 'whoever applies it has' : 'with both on, a picture has'} the effect twice.
          A companion preset, made on that look’s page, calls the look and touches nothing else
          {calls ? '.' : ': send it in the place of this preset.'}
        </p>
      ))}
      {more > 0 && (
        <p role="status" className="mb-3 pl-3 text-ochre">
          So do {more} more.
        </p>
      )}
    </>
  );
}
