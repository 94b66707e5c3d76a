import { redirect } from 'next/navigation';
import { anyone } from '@/server/people/service';
import { signedIn } from '@/server/http';
import { Door } from '@/ui/people/Door';
import { localAddress } from '@/ui/people/local-address';
import { SignIn } from '@/ui/people/SignIn';

export const metadata = { title: 'Sign in' };

export default async function Page({ searchParams }: { searchParams: Promise<{ to?: string | string[] }> }) {
  const asked = (await searchParams).to;
  const to = localAddress(Array.isArray(asked) ? asked[0] : asked);
  if (await signedIn()) redirect(to);
  if (!(await anyone())) redirect('/welcome');
  return (
    <Door title="Sign in" note="The studio’s library of looks, presets and profiles.">
      <SignIn to={to} />
    </Door>
  );
}
