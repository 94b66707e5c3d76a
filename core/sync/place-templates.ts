/** Where a descriptor's templates lie below a station's root: {home}, {config} and {media} by system. Paths with "/". */
import type { System } from '../editor/place-schema';
import { bundleListOf } from './bundle';

const variables: Record<System, { home: string; config: string; media: string }> = {
  macos: { home: '', config: 'Library/Application Support', media: 'media' },
  windows: { home: '', config: 'AppData/Roaming', media: 'media' },
  linux: { home: '', config: '.config', media: 'media' },
};

export function resolveTemplate(template: string, system: System): string {
  return template
    .replace(/^\{(home|config|media)\}/, (_, v: 'home' | 'config' | 'media') => variables[system][v])
    .replace(/^\/+/, '');
}

/** The list of a bundle in which an entry stands that a template names: a place that agents write to; null for a file. */
export function bundlePlace(templates: Partial<Record<System, string>> | undefined, system: System): string | null {
  const template = templates?.[system];
  const place = template ? resolveTemplate(template, system).replace(/(#[^/]+)\/.*$/, '$1') : '';
  return bundleListOf(place) ? place : null;
}

type Places = Record<string, Partial<Record<System, string>>>;

/** Which of an editor's places a path below a station's root lies in; null for none. Several editors may read one folder. */
export function placeOfPath(places: Places, system: System, path: string): string | null {
  const found = Object.entries(places).find(([, templates]) => {
    const template = templates[system];
    return template !== undefined && path.startsWith(`${resolveTemplate(template, system)}/`);
  });
  return found?.[0] ?? null;
}
