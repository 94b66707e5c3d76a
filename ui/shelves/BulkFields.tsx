'use client';
import { useFormContext } from 'react-hook-form';
import { origins, sourceParts } from '@/core/item/fields';
import type { BulkForm } from './model/bulk';

const label = 'flex flex-col gap-0.5 text-[12px] text-soft';
const control = 'field text-[13.5px] text-ink';

/** What is to be changed; whatever is left empty stays as it is. */
export function BulkFields({ licences }: { licences: { id: string; name: string }[] }) {
  const { register } = useFormContext<BulkForm>();
  const field = (name: Parameters<typeof register>[0]) => ({ className: control, ...register(name) });
  return (
    <div className="mb-3 grid grid-cols-4 gap-3">
      <label className={label}>
        In titles, replace
        <input {...field('find')} />
      </label>
      <label className={label}>
        by
        <input {...field('replace')} />
      </label>
      <label className={`${label} col-span-2`}>
        Title as a pattern, with {'{title} {n} {camera} {supplier} {heading}'}
        <input placeholder="{title}" {...field('pattern')} />
      </label>
      <label className={`${label} col-span-2`}>
        Headings, from the outermost
        <input placeholder="as they are" {...field('headings')} />
      </label>
      <label className={label}>
        Add tags
        <input placeholder="costume, tungsten" {...field('addTags')} />
      </label>
      <label className={label}>
        Take tags off
        <input {...field('removeTags')} />
      </label>
      <label className={label}>
        Works on
        <select {...field('input')}>
          <option value="">as it is</option>
          <option value="any">any input</option>
          <option>camera data</option>
          <option>rendered SDR</option>
          <option>rendered HDR</option>
        </select>
      </label>
      <label className={label}>
        Gives
        <select {...field('result')}>
          <option value="">as it is</option>
          <option value="any">color or monochrome</option>
          <option>color</option>
          <option>monochrome</option>
        </select>
      </label>
      <label className={label}>
        Cameras
        <input placeholder="as they are; “any” for all" {...field('cameras')} />
      </label>
      <label className={label}>
        Licence
        <select {...field('licence')}>
          <option value="">as it is</option>
          <option value="none">none noted</option>
          {licences.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
      </label>
      <label className={label}>
        Supplier
        <input placeholder="as it is" {...field('supplier')} />
      </label>
      <label className={label}>
        Origin
        <select {...field('origin')}>
          <option value="">as it is</option>
          {origins.map((origin) => (
            <option key={origin}>{origin}</option>
          ))}
        </select>
      </label>
      {sourceParts.map(({ part, label: words, type }) => (
        <label key={part} className={label}>
          {words}
          <input placeholder="as it is" type={type} {...field(`source.${part}`)} />
        </label>
      ))}
      <label className={`${label} col-span-4`}>
        Description
        <input placeholder="as it is" {...field('description')} />
      </label>
    </div>
  );
}
