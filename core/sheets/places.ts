/** Paths as people type them on their system, and how a folder is reached there that its system hides. */
import type { System } from '../editor/place-schema';

const ROAMING = 'AppData/Roaming/';
const MEDIA = /^media\/([^/]+)\/?/;

/** A path below a station's root in the form that its system takes: `%APPDATA%\…`, `~/…`, or the card's own. */
export function nativePath(path: string, system: System): string {
  const card = MEDIA.exec(path);
  if (card) return `${card[1]}/${path.slice(card[0].length)}`;
  if (system !== 'windows') return `~/${path}`;
  const below = path.startsWith(ROAMING) ? `%APPDATA%\\${path.slice(ROAMING.length)}` : `%USERPROFILE%\\${path}`;
  return below.replaceAll('/', '\\');
}

/** Whether a system does not show a folder on the way unless it is asked to. */
export const isHidden = (path: string, system: System): boolean => {
  const segments = path.split('/');
  if (segments.some((segment) => segment.startsWith('.'))) return true;
  if (system === 'macos') return segments[0] === 'Library';
  return system === 'windows' && segments[0] === 'AppData';
};

/** How a folder is opened by its path, hidden or not. */
export function reachWords(path: string, system: System): string {
  if (MEDIA.test(path)) return 'Put the card into a reader, and open it.';
  const ways: Record<System, string> = {
    macos: 'In the Finder press Shift-Command-G, paste the path, and press Return.',
    windows: 'Press Windows-R, paste the path, and press Enter; %APPDATA% and the like are filled in.',
    linux: 'In the file manager press Ctrl-L, paste the path, and press Enter.',
  };
  return ways[system] + (isHidden(path, system) ? ' The folder is hidden otherwise.' : '');
}
