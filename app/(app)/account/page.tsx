import { sessionToken, signedInPerson } from '@/server/http';
import { sessionsOf } from '@/server/people/sessions';
import { ChangePassword } from '@/ui/people/ChangePassword';
import { Sessions } from '@/ui/people/Sessions';
import { PageHead } from '@/ui/shell/Shell';

export const metadata = { title: 'Your account' };

export default async function Page() {
  const person = await signedInPerson();
  const sessions = await sessionsOf(person, await sessionToken());
  return (
    <div className="max-w-[860px] px-6 pb-16 pt-[18px]">
      <PageHead title={person.name} note={`${person.role}, ${person.email}`} />
      <h2 className="mb-1 text-[17px]">Where you are signed in</h2>
      <Sessions sessions={sessions} />
      <h2 className="mb-2 mt-8 text-[17px]">Password</h2>
      <ChangePassword />
    </div>
  );
}
