import { Events } from '@/ui/activity/Events';
import { historyOfRequest } from '../request';

export async function History({ id }: { id: string }) {
  const events = await historyOfRequest(id);
  return (
    <Events
      events={events.map((event) => ({
        id: event.id,
        at: event.at.toISOString(),
        actor: event.actor,
        subject: event.subject,
        subjectId: event.subject_id,
        action: event.action,
        before: event.before,
        after: event.after,
        title: event.title,
      }))}
    />
  );
}
