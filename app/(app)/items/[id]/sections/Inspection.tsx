import { inspectionOf } from '@/server/items/service';
import { Inspection } from '@/ui/item/Inspection';
import { SectionHead } from '@/ui/kit/Section';
import { itemOfRequest, personOfRequest } from '../request';

/** The health of a look, or of the table that a preset makes; nothing for items of other kinds. */
export async function InspectionSection({ id }: { id: string }) {
  const { newest } = await itemOfRequest(id);
  const inspection = await inspectionOf(await personOfRequest(), newest.id);
  if (!inspection) return null;
  const { verdict, findings, figures, ramp } = inspection;
  return (
    <>
      <SectionHead>Inspection</SectionHead>
      <Inspection i={{ verdict, findings, figures, ramp }} />
    </>
  );
}
