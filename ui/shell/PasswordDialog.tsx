'use client';
/** The password of somebody whose session has ended. */
import { peopleEndpoints } from '@/core/api/people';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Field } from '../kit/Field';
import { problemWith, useSchemaForm } from '../kit/form';
import { Modal, ModalFoot } from '../kit/Modal';
import { Notice } from '../kit/Notice';

interface Props {
  name: string;
  email: string;
  /** whether somebody signed in, or not now */ onAnswer: (well: boolean) => void;
}

export function PasswordDialog({ name, email, onAnswer }: Props) {
  return (
    <Modal title="Your session has ended" width={400} top="20vh" onClose={() => onAnswer(false)}>
      <p className="mb-3 text-soft">Sign in again as {name}. What you were doing stays as it is, and goes on then.</p>
      <PasswordForm email={email} onSignedIn={() => onAnswer(true)} />
    </Modal>
  );
}

function PasswordForm({ email, onSignedIn }: { email: string; onSignedIn: () => void }) {
  const { busy, problem, run } = useAction();
  const form = useSchemaForm(peopleEndpoints['POST /api/session'].body, { email, password: '' });
  const signIn = (body: { email: string; password: string }) =>
    run(async () => {
      await call('POST /api/session', { body });
      onSignedIn();
    });
  return (
    <form
      noValidate
      onSubmit={(event) => {
        event.stopPropagation(); // it may stand over another form
        void form.handleSubmit(signIn)(event);
      }}
    >
      <Field label="Password" problem={problemWith(form, 'password')}>
        {(attributes) => (
          <input
            autoFocus
            type="password"
            autoComplete="current-password"
            {...attributes}
            {...form.register('password')}
          />
        )}
      </Field>
      <Notice problem={problem} className="mt-2" />
      <ModalFoot cancel="Not now">
        <button className="button main" disabled={busy}>
          Sign in
        </button>
      </ModalFoot>
    </form>
  );
}
