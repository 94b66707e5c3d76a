'use client';
/** Inviting somebody: their name, their address and their role; then the link to hand on. */
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { invitation, type Invitation, type Role } from '@/core/api/people';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Field } from '../kit/Field';
import { problemWith, useSchemaForm } from '../kit/form';
import { Notice } from '../kit/Notice';
import { LinkToCopy, type Link } from './LinkToCopy';

/** The one that may least comes first. */
const offered: readonly Role[] = ['retoucher', 'librarian', 'lead'];
const nobody: Invitation = { name: '', email: '', role: 'retoucher' };

/** @param mayLead another lead can be invited */
export function Invite({ mayLead }: { mayLead: boolean }) {
  const router = useRouter();
  const { busy, problem, run } = useAction();
  const [made, setMade] = useState<{ link: Link; name: string } | null>(null);
  const form = useSchemaForm<Invitation>(invitation, nobody);
  const invite = (body: Invitation) =>
    run(async () => {
      setMade({ link: await call('POST /api/people/invitations', { body }), name: body.name });
      form.reset(nobody);
      router.refresh();
    });
  return (
    <section aria-label="Invite somebody" className="mt-6 max-w-[760px]">
      <h2 className="mb-2 text-[17px]">Invite somebody</h2>
      <form
        noValidate
        className="flex flex-wrap items-start gap-3"
        onSubmit={(event) => void form.handleSubmit(invite)(event)}
      >
        <Field label="Name" className="min-w-[180px] flex-1" problem={problemWith(form, 'name')}>
          {(field) => <input {...field} autoComplete="off" {...form.register('name')} />}
        </Field>
        <Field label="E-mail address" className="min-w-[220px] flex-1" problem={problemWith(form, 'email')}>
          {(field) => <input {...field} type="email" autoComplete="off" {...form.register('email')} />}
        </Field>
        <Field label="Role" problem={problemWith(form, 'role')}>
          {(field) => (
            <select {...field} {...form.register('role')}>
              {offered
                .filter((role) => role !== 'lead' || mayLead)
                .map((role) => (
                  <option key={role} value={role}>
                    {role}
                  </option>
                ))}
            </select>
          )}
        </Field>
        <button className="button main mt-[19px]" disabled={busy}>
          Invite
        </button>
      </form>
      <Notice problem={problem} className="mt-2" />
      {made && <LinkToCopy {...made} />}
    </section>
  );
}
