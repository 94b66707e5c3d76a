/** The data folder: $ETAGERE_DATA, else /var/lib/etagere for root, else the user's data folder. */
import { homedir } from 'node:os';
import { join } from 'node:path';

export function dataFolder(): string {
  return (
    process.env.ETAGERE_DATA ||
    (process.getuid?.() === 0
      ? '/var/lib/etagere'
      : join(process.env.XDG_DATA_HOME || join(homedir(), '.local', 'share'), 'etagere'))
  );
}
