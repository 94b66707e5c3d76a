import { redirect } from 'next/navigation';
import { anyone } from '@/server/people/service';
import { Door } from '@/ui/people/Door';
import { Welcome } from '@/ui/people/Welcome';

export const metadata = { title: 'Welcome' };
export const dynamic = 'force-dynamic';

export default async function Page() {
  if (await anyone()) redirect('/sign-in');
  return (
    <Door title="The first person" note="This library is empty. Whoever begins is its librarian.">
      <Welcome />
    </Door>
  );
}
