'use client';
/** The first person of an empty studio, with the code that was printed where Etagere was started. */
import { peopleEndpoints } from '@/core/api/people';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Field } from '../kit/Field';
import { problemWith, useSchemaForm } from '../kit/form';
import { Notice } from '../kit/Notice';

interface FirstPerson {
  code: string;
  name: string;
  email: string;
  password: string;
}

export function Welcome() {
  const { busy, problem, run } = useAction();
  const form = useSchemaForm<FirstPerson>(peopleEndpoints['POST /api/people'].body, {
    code: '',
    name: '',
    email: '',
    password: '',
  });
  const begin = (person: FirstPerson) =>
    run(async () => {
      await call('POST /api/people', { body: person });
      await call('POST /api/session', { body: { email: person.email, password: person.password } });
      location.assign('/shelves');
    });
  return (
    <form noValidate className="flex flex-col gap-3" onSubmit={(event) => void form.handleSubmit(begin)(event)}>
      <Notice problem={problem} />
      <Field label="Set-up code, printed where Etagere was started" problem={problemWith(form, 'code')}>
        {(attributes) => (
          <input
            autoFocus
            autoComplete="off"
            {...attributes}
            className={`${attributes.className} font-mono`}
            {...form.register('code')}
          />
        )}
      </Field>
      <Field label="Your name" problem={problemWith(form, 'name')}>
        {(attributes) => <input autoComplete="name" {...attributes} {...form.register('name')} />}
      </Field>
      <Field label="E-mail address" problem={problemWith(form, 'email')}>
        {(attributes) => <input type="email" autoComplete="username" {...attributes} {...form.register('email')} />}
      </Field>
      <Field label="Password, at least 10 characters" problem={problemWith(form, 'password')}>
        {(attributes) => (
          <input type="password" autoComplete="new-password" {...attributes} {...form.register('password')} />
        )}
      </Field>
      <button className="button main mt-1 justify-center" disabled={busy}>
        Begin as librarian
      </button>
    </form>
  );
}
