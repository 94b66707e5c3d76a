/** Where programs of ours lie that are started as threads or processes. */
import { existsSync } from 'node:fs';
import { dirname, join } from 'node:path';

/** In dist, below the place where the application is started, or beside the program that runs. */
export function programOf(name: string): string {
  return (
    [join(process.cwd(), 'dist'), dirname(process.argv[1] ?? '.')]
      .map((at) => join(at, name))
      .find((path) => existsSync(path)) ?? join(process.cwd(), 'dist', name)
  );
}
