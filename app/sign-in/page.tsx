import { redirect } from 'next/navigation';
import { anyone } from '@/server/people/service';
import { signedIn } from '@/server/http';
import { Door } from '@/ui/people/Door';
import { SignIn } from '@/ui/people/SignIn';

export const metadata = { title: 'Sign in' };

export default async function Page() {
  if (await signedIn()) redirect('/shelves');
  if (!(await anyone())) redirect('/welcome');
  return (
    <Door title="Sign in" note="The studio’s library of looks, presets and profiles.">
      <SignIn />
    </Door>
  );
}
