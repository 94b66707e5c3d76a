import { samplesHeld } from '@/server/editors/reading';
import { listEditors } from '@/server/editors/service';
import { listFrames } from '@/server/frames/service';
import { signedInPerson } from '@/server/http';
import { may } from '@/server/people/roles';
import { Workshop } from '@/ui/workshop/Workshop';
import { PageHead } from '@/ui/shell/Shell';

export const metadata = { title: 'Mapping workshop' };

interface Props {
  searchParams: Promise<{ editor?: string }>;
}

export default async function Page({ searchParams }: Props) {
  const person = await signedInPerson();
  const { editor = '' } = await searchParams;
  const [editors, frames] = await Promise.all([listEditors(person), listFrames(person)]);
  const described = new Map(editors.map(({ id, version, descriptor }) => [`${id}@${version}`, descriptor]));
  const known = described.get(editor) ?? null;
  const held = known ? await samplesHeld(person, editor) : [];
  return (
    <div className="max-w-[1240px] px-6 pb-16 pt-[18px]">
      <PageHead
        title="Mapping workshop"
        note={known ? `presets of ${known.title}` : 'an editor that nobody has described'}
      />
      {may(person, 'editor.propose') ? (
        <Workshop
          key={editor}
          person={person.id}
          editor={known ? editor : ''}
          known={known}
          described={new Map([...described].map(([key, { title }]) => [key, title]))}
          held={held.map(({ id, file_name }) => ({ versionId: id, fileName: file_name }))}
          frames={frames
            .filter(({ archived }) => !archived)
            .map(({ id, name, width, height }) => ({ id, name, ratio: width / height }))}
        />
      ) : (
        <p className="max-w-[640px] border-t border-line py-4 text-soft">
          Librarians and the lead describe editors. Ask one of them, with some presets of the editor at hand.
        </p>
      )}
    </div>
  );
}
