import { peopleFor, whoMay } from '@/server/people/manage';
import { may } from '@/server/people/roles';
import { signedInPerson } from '@/server/http';
import { Refresh } from '@/ui/kit/Refresh';
import { Invite } from '@/ui/people/Invite';
import { PeopleTable } from '@/ui/people/PeopleTable';
import { WhoMay } from '@/ui/people/WhoMay';
import { PageHead } from '@/ui/shell/Shell';

export const metadata = { title: 'People' };

export default async function Page() {
  const person = await signedInPerson();
  const people = await peopleFor(person);
  const manages = may(person, 'person.manage');
  return (
    <div className="max-w-[1080px] px-6 pb-16 pt-[18px]">
      <Refresh subjects={['person']} />
      <PageHead title="People" note="who signs in here, and as what" />
      <PeopleTable people={people} manages={manages} />
      {may(person, 'person.add') && <Invite mayLead={manages} />}
      <h2 className="mb-1 mt-9 text-[17px]">Who may do what</h2>
      <WhoMay rows={whoMay()} />
    </div>
  );
}
