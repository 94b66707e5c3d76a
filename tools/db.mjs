import { spawnSync } from 'node:child_process';
import { adopt, psqlArguments, startCluster, stopCluster } from './cluster.mjs';

const [verb, ...rest] = process.argv.slice(2);
if (verb === 'start') {
  await startCluster();
} else if (verb === 'stop') stopCluster();
else if (verb === 'adopt') await adopt(rest[0]);
else if (verb === 'url') process.stdout.write((await startCluster()).url + '\n');
else if (verb === 'psql') {
  const { args, env } = psqlArguments();
  process.exit(spawnSync('psql', [...args, ...rest], { stdio: 'inherit', env }).status ?? 1);
} else if (verb === 'schema') {
  const { psql } = await startCluster();
  const { schema } = await import('./schema.mjs');
  process.stdout.write(schema((sql) => psql(process.env.ETAGERE_DATABASE || 'etagere', sql)));
} else {
  process.stderr.write('use: bin/db start|stop|url|schema|adopt NAME|psql [arguments]\n');
  process.exit(2);
}
