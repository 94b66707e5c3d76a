import { Inspection } from '@/ui/item/Inspection';
import { SectionHead } from '@/ui/kit/Section';
import { inspectionOfRequest } from '../request';

/** The health of a look, or of the table that a preset makes; nothing for items of other kinds. */
export async function InspectionSection({ id }: { id: string }) {
  const inspection = await inspectionOfRequest(id);
  if (!inspection) return null;
  const { verdict, findings, figures, ramp } = inspection;
  return (
    <>
      <SectionHead>Inspection</SectionHead>
      <Inspection i={{ verdict, findings, figures, ramp }} />
    </>
  );
}
