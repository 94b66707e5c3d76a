/** Where a descriptor's templates lie below a station's root: {home}, {config} and {media} by system. Paths with "/". */
import type { System } from '../editor/descriptor';

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
