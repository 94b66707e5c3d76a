/**
 * How an editor is asked for a picture: it looks into a folder of its own for a picture and a text beside it that says what
 * to put on, and writes what it made of it there. By this a rollout is seen working.
 */
import { array, object, string } from 'yup';
import { fileNameOf } from '../paths';
import { entryAt } from '../sync/bundle';
import { acceptedKinds, type AcceptedKind } from './accepted-kinds';
import { isProgram } from './own-folder';
import { paths, type System } from './place-schema';

export interface Renders {
  /** the folder in which it looks, by system */ folder: Partial<Record<System, string>>;
  /** of what it puts on a picture */ kinds: AcceptedKind[];
  ask: {
    extension: string;
    /** By which signs that mean something in the text are kept out of what is filled in. */ form: 'json' | 'lines';
    /** What the text beside the picture says; `{picture}`, `{result}`, `{path}`, `{name}` and `{title}` are filled in. */ text: string;
  };
  /** What the name of its picture ends in, and that of a text which says why it made none. */
  result: string;
  fault: string;
}

const ending = () =>
  string()
    .required()
    .max(30)
    .matches(/^(\.[a-z0-9-]{1,12}){1,3}$/, '${path} must be an ending such as .done.png')
    .test(
      'program',
      '${path} must not be that of a program',
      (name) => !name || !isProgram(`.${name.split('.').pop()}`),
    );

/** The picture that it is given, which we write. */
export const PICTURE_ENDING = '.png';

export const rendersSchema = object({
  folder: paths,
  kinds: array().of(string().oneOf(acceptedKinds).required()).min(1, '${path} must name at least one kind').required(),
  ask: object({
    extension: ending(),
    form: string()
      .oneOf(['json', 'lines'] as const)
      .required(),
    text: string().required().max(4000),
  })
    .noUnknown()
    .required(),
  result: ending(),
  fault: ending(),
})
  .noUnknown()
  .default(undefined);

type Places = Record<string, Partial<Record<System, string>>>;

/** Whether pictures would lie in a folder from which the editor reads things. */
const liesInPlace = (places: Places, folder: Renders['folder']): boolean =>
  Object.entries(folder).some(([system, template]) =>
    Object.values(places).some((place) => `${template}/`.startsWith(`${place[system as System]}/`)),
  );

/** What is wrong with it that the fields do not tell by themselves; null where nothing is. */
export function faultOfRenders(
  places: Places,
  { folder, ask, result, fault }: Renders,
): { message: string; remedy: string } | null {
  if (liesInPlace(places, folder))
    return {
      message: 'Pictures that are asked for would lie among the things that the editor reads.',
      remedy: 'Give them a folder of their own, beside the places.',
    };
  const endings = [PICTURE_ENDING, ask.extension, result, fault];
  const twice = endings.find((one, n) => endings.indexOf(one) !== n);
  if (twice)
    return {
      message: `What is asked for a picture and what comes back both end in ${twice}.`,
      remedy: `Give each an ending of its own; the picture that the editor is given ends in ${PICTURE_ENDING}.`,
    };
  if (!result.endsWith('.png'))
    return { message: `A picture that ends in ${result} is not read.`, remedy: 'Let the editor write PNG.' };
  const unknown = [...ask.text.matchAll(/\{(\w+)\}/g)].find(([, name]) => !isFilled(name ?? ''));
  if (unknown)
    return {
      message: `The text that asks for a picture names ${unknown[0]}.`,
      remedy: `Use ${fields.map((name) => `{${name}}`).join(', ')}.`,
    };
  if (!ask.text.includes('{path}') && !ask.text.includes('{name}') && !ask.text.includes('{title}'))
    return {
      message: 'The text that asks for a picture does not say what to put on it.',
      remedy: 'Name it by {path}, {name} or {title}.',
    };
  return null;
}

const fields = ['picture', 'result', 'path', 'name', 'title'] as const;
const isFilled = (name: string): name is (typeof fields)[number] => (fields as readonly string[]).includes(name);

/** Files in which an editor is asked, and answers. */
export interface AskNames {
  picture: string;
  ask: string;
  result: string;
  fault: string;
}
export const askNames = ({ ask, result, fault }: Renders, id: string): AskNames => ({
  picture: id + PICTURE_ENDING,
  ask: id + ask.extension,
  result: id + result,
  fault: id + fault,
});

/** What is to be put on: its path below the station's root, which may be that of an entry of a bundle, and how it is called. */
export interface PutOn {
  path: string;
  title: string;
}

/** A value as it stands in a text of the form: within the quotes of JSON, or on one line. */
const written: Record<Renders['ask']['form'], (value: string) => string> = {
  json: (value) => JSON.stringify(value).slice(1, -1),
  lines: (value) => value.replace(/[\u0000-\u001f]+/g, ' '),
};

/** The text that asks for a picture. */
export function askText({ ask }: Renders, names: AskNames, { path, title }: PutOn): string {
  const name = entryAt(path)?.key ?? fileNameOf(path);
  const values = { picture: names.picture, result: names.result, path, name, title };
  return ask.text.replace(/\{(\w+)\}/g, (whole, field: string) =>
    isFilled(field) ? written[ask.form](values[field]) : whole,
  );
}
