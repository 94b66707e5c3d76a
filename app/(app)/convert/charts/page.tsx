import { editorKey } from '@/core/editor/descriptor';
import { orNull } from '@/core/problem';
import { isUuid } from '@/core/uuid';
import { listEditors } from '@/server/editors/service';
import { listEditorCharts, type EditorChartRow } from '@/server/editor-charts/service';
import { signedInPerson } from '@/server/http';
import { itemFor } from '@/server/items/service';
import { may, type Person } from '@/server/people/roles';
import { kindWords } from '@/ui/charts/model/words';
import { NewChart, type Chosen } from '@/ui/charts/NewChart';
import { ListTitle } from '@/ui/kit/ListTitle';
import { Refresh } from '@/ui/kit/Refresh';
import { Ago } from '@/ui/kit/time';
import { PageHead } from '@/ui/shell/Shell';

export const metadata = { title: 'Charts' };

interface Props {
  searchParams: Promise<{ preset?: string; form?: string }>;
}

export default async function Page({ searchParams }: Props) {
  const person = await signedInPerson();
  const [charts, editors, from] = await Promise.all([
    listEditorCharts(person),
    listEditors(person),
    presetIn(person, await searchParams),
  ]);
  const titles = editors.map(({ descriptor }) => descriptor.title);
  return (
    <div className="px-6 pb-16 pt-[18px]">
      <Refresh subjects={['editor-chart']} />
      <PageHead title="Charts" note={noteOf(charts)} />
      <div className="grid grid-cols-[minmax(0,1fr)_320px] gap-8 max-[1100px]:grid-cols-[minmax(0,1fr)]">
        {charts.length ? <List charts={charts} /> : <Empty />}
        {may(person, 'item.convert') && (
          <div className="max-[1100px]:order-first">
            <NewChart
              key={from.preset?.id ?? ''}
              editors={titles}
              preset={from.preset}
              form={from.form}
              editor={editors.find(({ descriptor }) => editorKey(descriptor) === from.editor)?.descriptor.title ?? ''}
            />
          </div>
        )}
      </div>
    </div>
  );
}

/** How many are still out. */
function noteOf(charts: readonly EditorChartRow[]): string {
  const out = charts.filter(({ readings }) => !readings).length;
  if (out) return `${out} not given back yet`;
  return charts.length ? 'all given back' : 'none yet';
}

/** The preset that one comes from, where the address names one. */
async function presetIn(
  person: Person,
  { preset, form }: { preset?: string; form?: string },
): Promise<{ preset: Chosen | null; form: string | null; editor: string }> {
  const found = isUuid(preset) ? await orNull(itemFor(person, preset)) : null;
  if (found?.item.kind !== 'preset') return { preset: null, form: null, editor: '' };
  const { item, forms, newest } = found;
  const chosen = forms.find(({ id }) => id === form);
  return { preset: { id: item.id, title: item.title }, form: chosen?.id ?? null, editor: (chosen ?? newest).format };
}

const Empty = () => (
  <div className="max-w-[640px] border-t border-line py-4 text-soft">
    <p className="mb-2">
      Of an editor whose mathematics nobody knows, a chart tells what its presets do: a picture of many small squares
      that goes through it with the preset on, and comes back.
    </p>
    <p>
      What comes back is read as a table, with its noise and every check: whether it was scaled, cropped, turned,
      recompressed, sharpened, or is another chart. It becomes a look; and where the library holds the preset, our own
      rendering of it is compared with the editor’s.
    </p>
  </div>
);

function List({ charts }: { charts: readonly EditorChartRow[] }) {
  return (
    <table className="list self-start">
      <thead>
        <tr>
          <th>Switched on</th>
          <th>Editor</th>
          <th>Tried on</th>
          <th className="text-right">Points</th>
          <th className="text-right">Readings</th>
          <th className="pl-6">By</th>
          <th>When</th>
        </tr>
      </thead>
      <tbody>
        {charts.map((one) => (
          <tr key={one.id} className="hover:bg-sheet">
            <td>
              <ListTitle href={`/convert/charts/${one.id}`}>{one.what}</ListTitle>
            </td>
            <td>{one.editor}</td>
            <td>{kindWords[one.kind]}</td>
            <td className="text-right">{one.size}</td>
            <td className="text-right">{one.readings || <span className="text-soft">not yet</span>}</td>
            <td className="pl-6">{one.person}</td>
            <td className="whitespace-nowrap text-soft">
              <Ago at={one.created_at.toISOString()} />
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
