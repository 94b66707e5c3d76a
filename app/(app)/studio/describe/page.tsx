import { listEditors } from '@/server/editors/service';
import { signedInPerson } from '@/server/http';
import { may } from '@/server/people/roles';
import { Describe } from '@/ui/describe/Describe';
import { PageHead } from '@/ui/shell/Shell';

export const metadata = { title: 'Describe an editor' };

interface Props {
  searchParams: Promise<{ editor?: string }>;
}

export default async function Page({ searchParams }: Props) {
  const person = await signedInPerson();
  const { editor = '' } = await searchParams;
  const editors = await listEditors(person);
  const known = editors.find(({ id, version }) => `${id}@${version}` === editor)?.descriptor ?? null;
  return (
    <div className="max-w-[1240px] px-6 pb-16 pt-[18px]">
      <PageHead
        title={known ? `Describe ${known.title}` : 'Describe an editor'}
        note={known ? 'what Etagere knows of it' : 'one that nobody has described'}
      />
      {may(person, 'editor.propose') ? (
        <Describe key={editor} person={person.id} known={known} />
      ) : (
        <p className="max-w-[640px] border-t border-line py-4 text-soft">
          Librarians and the lead describe editors. Ask one of them.
        </p>
      )}
    </div>
  );
}
