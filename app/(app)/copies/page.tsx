import { listFrames } from '@/server/frames/service';
import { copies } from '@/server/copies/service';
import { spineOf } from '@/server/search/service';
import { may } from '@/server/people/roles';
import { signedInPerson } from '@/server/http';
import { CopyGroup } from '@/ui/copies/CopyGroup';
import { PageHead } from '@/ui/shell/Shell';
import { Refresh } from '@/ui/kit/Refresh';

export const metadata = { title: 'Copies' };

export default async function Page() {
  const person = await signedInPerson();
  const [{ groups, total, within }, frames] = await Promise.all([copies(person), listFrames(person)]);
  return (
    <div className="max-w-[1180px] px-6 pb-16 pt-[18px]">
      <Refresh subjects={['item']} />
      <PageHead
        title="Copies"
        note={`${total ? `${total} ${total === 1 ? 'group' : 'groups'} of items that do the same` : 'no two items do the same'}: 95 % of colors within ${within.p95} ΔE00, all within ${within.max}`}
      />
      {groups.map((copyGroup, i) => (
        <CopyGroup
          key={copyGroup.items.map((s) => s.id).join()}
          items={copyGroup.items.map(spineOf)}
          mean={copyGroup.mean}
          max={copyGroup.max}
          frame={frames[0] ?? null}
          may={may(person, 'item.edit')}
          show={i < 2}
        />
      ))}
      {total > groups.length && (
        <p className="text-soft">and {total - groups.length} more, shown when these are settled</p>
      )}
      {!total && (
        <p className="border-t border-line py-4 text-soft">
          Items are compared by what they do to colors, whatever their names, sizes and formats. Copies that came in
          anyway are shown here.
        </p>
      )}
    </div>
  );
}
