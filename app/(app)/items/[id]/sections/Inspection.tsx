import { Inspection } from '@/ui/item/Inspection';
import { SectionHead } from '@/ui/kit/Section';
import { inspectionOfRequest, type PageProps } from '../request';

interface Props extends Pick<PageProps, 'searchParams'> {
  id: string;
}

/** The health of a look, or of the table that a preset makes; nothing for items of other kinds. */
export async function InspectionSection({ id, searchParams }: Props) {
  const inspection = await inspectionOfRequest(id, searchParams);
  if (!inspection) return null;
  return (
    <>
      <SectionHead>Inspection</SectionHead>
      <Inspection i={inspection} />
    </>
  );
}
