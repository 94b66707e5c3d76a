import { editorChartFile } from '@/server/editor-charts/service';
import { attachment, route } from '@/server/http';

type C = { params: Promise<{ id: string }> };

export const GET = route<C>(async (person, _r, { params }) => {
  const { fileName, bytes } = await editorChartFile(person, (await params).id);
  return attachment(fileName, bytes);
});
