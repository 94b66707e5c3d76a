/** Rules that begin a photo with one effect twice, and the way out. */
import Link from 'next/link';

interface DoubleInRule {
  words: string;
  preset: string;
  look: { id: string; title: string };
  calls: boolean;
}

export function DoubleInRules({ doubles }: { doubles: readonly DoubleInRule[] }) {
  return doubles.map(({ words, preset, look, calls }) => (
    <p
      key={`${words} ${preset} ${look.id}`}
      role="status"
      className="mb-3 max-w-[760px] border-l-[3px] border-ochre pl-3"
    >
      The rule for {words} begins with the preset {preset}
      {calls ? ', which calls ' : ' and with '}
      <Link className="underline" href={`/items/${look.id}`}>
        {look.title}
      </Link>
      , which was made from it: the effect counts twice. A companion preset, made on that look’s page, calls the look
      and touches nothing else: name that in the rule, or only one of the two.
    </p>
  ));
}
