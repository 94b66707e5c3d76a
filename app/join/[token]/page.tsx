import { Problem } from '@/core/problem';
import { personOfLink } from '@/server/people/invitations';
import { Door } from '@/ui/people/Door';
import { Join } from '@/ui/people/Join';

export const metadata = { title: 'Choose a password', referrer: 'no-referrer' };
export const dynamic = 'force-dynamic';

export default async function Page({ params }: { params: Promise<{ token: string }> }) {
  const { token } = await params;
  const person = await personOfLink(token).catch((error: unknown) => {
    if (error instanceof Problem) return error;
    throw error;
  });
  if (person instanceof Problem)
    return (
      <Door title="This link is over" note={person.message}>
        <p role="alert">{person.remedy}</p>
      </Door>
    );
  const note = person.joined
    ? 'Choose another password. You are signed out wherever the old one was used.'
    : 'Choose a password, and you are in.';
  return (
    <Door title={person.name} note={note}>
      <Join token={token} />
    </Door>
  );
}
