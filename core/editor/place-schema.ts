/** Where things may lie at a station, as a descriptor says it: templates of paths, one a system. */
import { lazy, object, string } from 'yup';
import { faultOfPlace } from './own-folder';

export const systems = ['macos', 'windows', 'linux'] as const;
export type System = (typeof systems)[number];

const template = /^\{(home|config|media)\}(\/[^/\\:*?"<>|#]+)+$/;
/** A folder, or a list in a JSON file. */
const placeTemplate = /^\{(home|config|media)\}(\/[^/\\:*?"<>|#]+)+(\.json#[A-Za-z][\w-]{0,39})?$/;
/** A file, or an entry of a list in a JSON file. */
const listTemplate = /^\{(home|config|media)\}(\/[^/\\:*?"<>|#]+)+(\.json#[A-Za-z][\w-]{0,39}\/[A-Za-z][\w-]{0,39})?$/;
const pathsLike = (form: RegExp, words: string) =>
  lazy((value: unknown) =>
    object(
      Object.fromEntries(
        Object.keys((value ?? {}) as object).map((key) => [
          key,
          string()
            .required()
            .max(400)
            .matches(form, `\${path} must begin with {home}, {config} or {media} and ${words}`)
            .test(
              'fit',
              ({ path, value }) => `${path} ${faultOfPlace(String(value))}`,
              (p) => !p || faultOfPlace(p) === null,
            ),
        ]),
      ),
    )
      .noUnknown()
      .test('systems', 'names a system that is none of macos, windows, linux', (names) =>
        Object.keys(names ?? {}).every((k) => (systems as readonly string[]).includes(k)),
      ),
  );
export const paths = pathsLike(template, 'name folders below it');
export const places = pathsLike(placeTemplate, 'name folders below it, or a list in a .json file');
/** Whether the list is an entry of a bundle, and no file. */
export const isInBundle = (list: Partial<Record<System, string>> | undefined): boolean =>
  Object.values(list ?? {}).some((template) => template.includes('#'));

export const listPaths = pathsLike(listTemplate, 'name a file below it, or an entry of a list in a .json file');
