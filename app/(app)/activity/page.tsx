import Link from 'next/link';
import { listActivity, subjects } from '@/server/activity/service';
import { may } from '@/server/people/roles';
import { signedInPerson } from '@/server/http';
import { Events } from '@/ui/activity/Events';
import { PageHead } from '@/ui/shell/Shell';

export const metadata = { title: 'Activity' };

export default async function Page({
  searchParams,
}: {
  searchParams: Promise<{ below?: string; person?: string; subject?: string }>;
}) {
  const person = await signedInPerson();
  const search = await searchParams;
  if (!may(person, 'activity.view'))
    return (
      <div className="px-6 pt-[18px]">
        <PageHead title="Activity" />
        <p className="text-soft">Activity is shown to the librarian and the lead. An item’s own is on its page.</p>
      </div>
    );
  const { rows, people, more } = await listActivity(person, search);
  const to = (change: Record<string, string | undefined>) => {
    const next = new URLSearchParams(
      Object.entries({ ...search, ...change }).filter((e): e is [string, string] => !!e[1]),
    );
    return `/activity${next.size ? `?${next}` : ''}`;
  };
  return (
    <div className="max-w-[980px] px-6 pb-16 pt-[18px]">
      <PageHead title="Activity" note="who changed what, and when" />
      <div className="mb-2 flex flex-wrap gap-2" role="group" aria-label="Of what">
        {subjects.map((subject) => (
          <Link
            key={subject}
            className="chip"
            aria-current={search.subject === subject ? 'true' : undefined}
            href={to({ subject: search.subject === subject ? undefined : subject, below: undefined })}
          >
            {subject}
          </Link>
        ))}
      </div>
      <div className="mb-4 flex flex-wrap gap-2" role="group" aria-label="By whom">
        {people.map((person) => (
          <Link
            key={person.id}
            className="chip"
            aria-current={search.person === person.id ? 'true' : undefined}
            href={to({ person: search.person === person.id ? undefined : person.id, below: undefined })}
          >
            {person.name}
          </Link>
        ))}
      </div>
      {rows.length ? (
        <Events
          events={rows.map((activity) => ({
            id: activity.id,
            at: activity.at.toISOString(),
            actor: activity.actor,
            subject: activity.subject,
            subjectId: activity.subject_id,
            action: activity.action,
            before: activity.before,
            after: activity.after,
            title: activity.title,
          }))}
        />
      ) : (
        <p className="border-t border-line py-4 text-soft">Nothing of this kind has happened yet.</p>
      )}
      {more && (
        <Link className="button mt-4" href={to({ below: String(more) })}>
          Older
        </Link>
      )}
    </div>
  );
}
