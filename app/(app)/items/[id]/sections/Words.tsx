import { itemOfRequest } from '../request';

/** What people wrote of the item. */
export async function Words({ id }: { id: string }) {
  const { description, intention, notes } = (await itemOfRequest(id)).item;
  return (
    <>
      {description && <p className="mt-5 max-w-[68ch]">{description}</p>}
      {intention && (
        <p className="mt-3 max-w-[68ch]">
          <span className="text-soft">Meant to:</span> {intention}
        </p>
      )}
      {notes && <p className="mt-3 max-w-[68ch] whitespace-pre-wrap border-l-2 border-line pl-3 text-soft">{notes}</p>}
    </>
  );
}
