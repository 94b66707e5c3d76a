import { notFound } from 'next/navigation';
import { bodyOf } from '@/core/frame/body';
import { orNull } from '@/core/problem';
import { conversionFor, type ConversionView } from '@/server/conversions/service';
import { listFrames } from '@/server/frames/service';
import { signedInPerson } from '@/server/http';
import { listShelves } from '@/server/items/service';
import { may } from '@/server/people/roles';
import { presetLanguages } from '@/server/versions/preset-forms';
import { ConversionActions } from '@/ui/conversions/ConversionActions';
import { ConversionProgress } from '@/ui/conversions/ConversionProgress';
import { recipeWords } from '@/ui/conversions/model/recipe-words';
import { carriableOf, clashing, going, worst, type Row } from '@/ui/conversions/model/row';
import { Naming } from '@/ui/conversions/Naming';
import { RecipeForm } from '@/ui/conversions/RecipeForm';
import { Rows } from '@/ui/conversions/Rows';
import { Refresh } from '@/ui/kit/Refresh';
import { State } from '@/ui/kit/State';
import { Ago } from '@/ui/kit/time';
import { PageHead } from '@/ui/shell/Shell';
import { rowOf } from './row-of';

export const metadata = { title: 'Conversion' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const person = await signedInPerson();
  const { id } = await params;
  const view = await orNull(conversionFor(person, id));
  if (!view) notFound();
  const [shelves, languages, frames] = await Promise.all([
    listShelves(person),
    presetLanguages(person),
    listFrames(person),
  ]);
  const { conversion, thresholds } = view;
  const { status, recipe, job_id } = conversion;
  const standing = shelves.filter((shelf) => !shelf.query);
  const rows = view.rows.map((row) => rowOf(row, conversion, new Map(standing.map((one) => [one.id, one.name]))));
  const mayConvert = may(person, 'item.convert');
  const isOpen = mayConvert && (status === 'planning' || status === 'planned');
  return (
    <div className="px-6 pb-16 pt-[18px]">
      <Refresh subjects={['conversion']} />
      <PageHead
        title={conversion.title}
        note={
          <span className="inline-flex flex-wrap gap-x-2">
            <State of={status} />
            into {conversion.again ? 'newer versions of what was made before' : recipeWords(recipe, languages)}; by{' '}
            {conversion.person}, <Ago at={conversion.created_at.toISOString()} />
          </span>
        }
      >
        <ConversionActions
          id={id}
          status={status}
          going={going(rows, conversion.clash).length}
          failed={rows.filter((row) => row.status === 'failed').length}
          drafts={rows.flatMap((row) => (row.made?.status === 'draft' ? [row.made.itemId] : []))}
          may={{ convert: mayConvert, approve: may(person, 'item.approve') }}
        />
      </PageHead>
      {job_id && (status === 'planning' || status === 'running') && (
        <ConversionProgress
          id={id}
          jobId={job_id}
          doing={status === 'planning' ? 'Planning' : 'Converting'}
          may={mayConvert}
        />
      )}
      <Summary view={view} rows={rows} />
      <div className="grid grid-cols-[minmax(0,1fr)_264px] gap-8 max-[1100px]:grid-cols-[minmax(0,1fr)]">
        <Rows id={id} rows={rows} within={thresholds} open={mayConvert && isOpen} />
        <div className="flex flex-col gap-6 max-[1100px]:order-first">
          {!conversion.again && (
            <RecipeForm
              key={JSON.stringify(recipe)}
              id={id}
              recipe={recipe}
              languages={languages}
              settings={carriableOf(rows, recipe)}
              frames={frames
                .filter((frame) => frame.file_kind === 'camera data' && !frame.archived)
                .map((frame) => ({ id: frame.id, name: frame.name, camera: bodyOf(frame) }))}
              may={isOpen}
            />
          )}
          {rows.some((row) => !row.named) && (
            <Naming
              key={conversion.naming}
              id={id}
              naming={conversion.naming}
              shelfId={conversion.shelf_id}
              clash={conversion.clash}
              clashes={clashing(rows).length}
              shelves={standing.map(({ id: shelf, name }) => ({ id: shelf, name }))}
              may={isOpen}
            />
          )}
          <p className="text-[12.5px] text-soft">
            All comes as drafts that know what they were made from, and how. Scope: open, for any camera and any kind of
            file. Agreement with an editor is measured by charts, and told where a preset is converted by itself.
          </p>
        </div>
      </div>
    </div>
  );
}

/** The whole in one line. */
function Summary({ view: { conversion }, rows }: { view: ConversionView; rows: readonly Row[] }) {
  const count = (status: Row['status']): number => rows.filter((row) => row.status === status).length;
  const largest = worst(going(rows, conversion.clash));
  const parts = [
    `${rows.length} in all`,
    count('made') && `${count('made')} made`,
    count('refused') && `${count('refused')} cannot be made`,
    count('failed') && `${count('failed')} failed`,
    rows.filter((row) => row.excluded).length && `${rows.filter((row) => row.excluded).length} left out`,
    largest && `largest error ${largest.max.toFixed(2)} ΔE00, ${largest.name}`,
  ].filter(Boolean);
  return <p className="mb-4 text-soft">{parts.join('; ')}</p>;
}
