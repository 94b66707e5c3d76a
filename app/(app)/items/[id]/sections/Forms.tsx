import { inputOfForm } from '@/core/item/forms';
import type { ItemWithVersions } from '@/server/items/service';
import { languageWords } from '@/server/search/service';
import { Forms, type FormShown } from '@/ui/item/Forms';
import { benchAddress } from '@/ui/bench/model/laid';
import { formOfRequest, framesOfRequest, itemOfRequest, type PageProps } from '../request';

interface Props extends Pick<PageProps, 'searchParams'> {
  id: string;
}

/** How many frames the forms are laid on the bench with. */
const FRAMES = 4;

type Found = Pick<ItemWithVersions, 'item' | 'newest'>;

/** The photos and the editor that a form is for. */
function purposeOf(item: Found['item'], form: Found['newest']): string {
  const input = inputOfForm(form, item.scope.input ?? null);
  const photos = input ? `for ${input}` : 'for any photo';
  return item.kind === 'preset' ? `${languageWords(form.format)}, ${photos}` : photos;
}

/** The forms of a design that has more than one. */
export async function FormsSection({ id, searchParams }: Props) {
  const [{ item, forms }, shown, frames] = await Promise.all([
    itemOfRequest(id),
    formOfRequest(id, searchParams),
    framesOfRequest(),
  ]);
  if (forms.length < 2) return null;
  return (
    <Forms
      shown={shown.id}
      bench={benchAddress(
        forms.map((form) => ({ kind: item.kind, versionId: form.id, strength: item.strength_usual })),
        frames,
        FRAMES,
      )}
      forms={forms.map((form): FormShown => ({
        versionId: form.id,
        number: form.number,
        variant: form.variant,
        purpose: purposeOf(item, form),
        status: form.status,
        selvedge: form.selvedge,
      }))}
    />
  );
}
