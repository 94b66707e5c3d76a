/** A file manager without a screen: what it is to show, it writes into a list beside the station's folder tree. */
import { appendFileSync, existsSync } from 'node:fs';
import { join, sep } from 'node:path';

const file = process.argv[2] ?? '';
const root = `${sep}root${sep}`;
const at = file.indexOf(root);
if (at < 0 || !existsSync(file)) {
  process.stderr.write(`there is nothing to be shown at ${file}\n`);
  process.exit(1);
}
appendFileSync(join(file.slice(0, at), 'shown.log'), `${file.slice(at + root.length)}\n`);
