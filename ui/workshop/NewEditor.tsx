'use client';
/** What a person says of an editor that nobody has described. */
import { useState } from 'react';
import { object, string } from 'yup';
import { editorKey, parseDescriptor, type Descriptor } from '@/core/editor/descriptor';
import { systems, type System } from '@/core/editor/place-schema';
import { editorIdOf, newDescriptor } from '@/core/preset/workshop/describe';
import { containerOf, formOf, type Recognise, type Sample } from '@/core/preset/workshop/samples';
import { must } from '@/core/must';
import { useAction } from '../kit/action';
import { CallError } from '../kit/call';
import { Field } from '../kit/Field';
import { problemWith, useSchemaForm } from '../kit/form';
import { Notice } from '../kit/Notice';
import { markWords } from './model/draft';

interface Props {
  samples: readonly Sample[];
  marks: readonly Recognise[];
  /** as "id@version", with their titles */ described: ReadonlyMap<string, string>;
  onDescribe: (descriptor: Descriptor) => void;
}
type Fields = { title: string; version: string; extension: string } & Record<System, string>;

const folder = () =>
  string()
    .trim()
    .max(300)
    .default('')
    .test(
      'folder',
      'A folder begins with {home} or {config} and names folders below it.',
      (text) => !text || /^\{(home|config)\}\/[^\\:*?"<>|]+$/.test(text),
    );
const schema = object({
  title: string()
    .trim()
    .required('Say how the editor is called.')
    .max(80)
    .test('id', 'The name needs letters of the Latin alphabet.', (text) => !text || editorIdOf(text) !== ''),
  version: string()
    .trim()
    .required('Say which version.')
    .matches(/^[0-9][0-9.]{0,11}$/, 'A version is a number such as 2 or 2.1.'),
  extension: string()
    .trim()
    .required()
    .matches(/^\.[a-z0-9]{1,12}$/i, 'An extension is a dot with letters or digits.'),
  linux: folder(),
  macos: folder(),
  windows: folder(),
}).noUnknown();

const extensionOf = (samples: readonly Sample[]): string =>
  (/\.[a-z0-9]{1,12}$/i.exec(samples[0]?.name ?? '')?.[0] ?? '').toLowerCase();

const systemWords: Readonly<Record<System, string>> = { macos: 'macOS', windows: 'Windows', linux: 'Linux' };

export function NewEditor({ samples, marks, described, onDescribe }: Props) {
  const form = useSchemaForm<Fields>(schema, {
    title: '',
    version: '1',
    extension: extensionOf(samples),
    linux: '',
    macos: '',
    windows: '',
  });
  const [mark, setMark] = useState(0);
  const action = useAction();
  const describe = ({ title, version, extension, ...folders }: Fields) =>
    action.run(async () => {
      const first = must(samples[0]);
      const container = containerOf(first.bytes);
      const said = Object.fromEntries(Object.entries(folders).filter(([, path]) => path !== ''));
      const recognise = must(marks[mark]);
      const made = newDescriptor(
        { title, version, extension, folders: said, recognise },
        container,
        formOf(first, container),
      );
      const there = described.get(editorKey(made));
      if (there)
        throw new CallError({
          code: 'editor-described',
          message: `${there} is described already.`,
          where: 'name and version',
          remedy: 'Open its mapping in Studio, or say another version.',
        });
      onDescribe(await Promise.resolve(parseDescriptor(made)));
    });
  if (!marks.length)
    return (
      <p role="alert" className="max-w-[700px] text-madder">
        The samples say nothing alike by which files of this editor could be told from others. Take samples of one
        version of one editor.
      </p>
    );
  return (
    <form noValidate className="max-w-[760px]" onSubmit={(event) => void form.handleSubmit(describe)(event)}>
      <div className="mb-3 grid grid-cols-[2fr_1fr_1fr] gap-3">
        <Field label="Name of the editor" problem={problemWith(form, 'title')}>
          {(attributes) => <input {...attributes} {...form.register('title')} />}
        </Field>
        <Field label="Version" problem={problemWith(form, 'version')}>
          {(attributes) => <input {...attributes} {...form.register('version')} />}
        </Field>
        <Field label="Extension of its presets" problem={problemWith(form, 'extension')}>
          {(attributes) => <input {...attributes} {...form.register('extension')} />}
        </Field>
      </div>
      <label className="mb-3 flex flex-col gap-0.5 text-[12px] text-soft">
        A file is one of its presets where
        <select
          className="field text-[13.5px] text-ink"
          value={mark}
          onChange={(event) => setMark(Number(event.target.value))}
        >
          {marks.map((one, index) => (
            <option key={markWords(one)} value={index}>
              {markWords(one)}
            </option>
          ))}
        </select>
      </label>
      <fieldset className="mb-3">
        <legend className="text-[12px] text-soft">
          Where its presets lie, as {'{home}'}/Editor/Presets; left empty where Etagere shall place none
        </legend>
        <div className="grid grid-cols-3 gap-3">
          {systems.map((system) => (
            <Field key={system} label={systemWords[system]} problem={problemWith(form, system)}>
              {(attributes) => <input {...attributes} {...form.register(system)} />}
            </Field>
          ))}
        </div>
      </fieldset>
      <Notice problem={action.problem} className="mb-2" />
      <button className="button main" disabled={action.busy}>
        Map its properties
      </button>
    </form>
  );
}
