/** What a preset can be made into: a look, or a preset of another editor. */
import Link from 'next/link';

interface Props {
  item: string;
  /** the version of another form than the plain one */ form: string | undefined;
  /** the editor that is chosen; '' for a look */ to: string;
  languages: readonly { id: string; title: string }[];
}

export function Targets({ item, form, to, languages }: Props) {
  const address = (target: string) => {
    const query = new URLSearchParams({ ...(form ? { form } : {}), ...(target ? { to: target } : {}) });
    return `/items/${item}/convert${query.size ? `?${query}` : ''}`;
  };
  const targets = [
    { id: '', title: 'A look' },
    ...languages.map((one) => ({ ...one, title: `A preset of ${one.title}` })),
  ];
  return (
    <nav aria-label="What it becomes" className="mb-5 flex flex-wrap gap-1.5">
      {targets.map(({ id, title }) => (
        <Link key={id} prefetch={false} href={address(id)} className="chip" aria-current={id === to}>
          {title}
        </Link>
      ))}
    </nav>
  );
}
