/** Before the server's tests: the cluster runs, and a migrated template database is there, from which each test file gets a copy. */
import { join } from 'node:path';
import type { TestProject } from 'vitest/node';
import { migrate } from '../migrate';

declare module 'vitest' {
  interface ProvidedContext {
    /** of the database beside the tests’ own, as the role of everyday work */ adminUrl: string;
    administratorUrl: string;
    template: string;
  }
}

export default async function setup(project: TestProject): Promise<void> {
  const { startCluster } = (await import(join(process.cwd(), 'tools/cluster.mjs'))) as {
    startCluster(o: object): Promise<{
      address(db: string): string;
      administrator(db: string): string;
      psql(db: string, sql: string): string;
    }>;
  };
  const { ensurePrograms } = (await import(join(process.cwd(), 'tools/build.mjs'))) as {
    ensurePrograms(): Promise<void>;
  };
  await ensurePrograms(); // the reading thread and the decoder of camera files
  const cluster = await startCluster({ fast: true, database: 'etagere' });
  const template = 'etagere_template';
  for (const db of cluster
    .psql('postgres', `select datname from pg_database where datname like 'etagere_t_%'`)
    .split('\n')
    .filter(Boolean))
    cluster.psql('postgres', `drop database if exists "${db}" with (force)`);
  cluster.psql('postgres', `drop database if exists ${template} with (force)`);
  cluster.psql('postgres', `create database ${template} owner etagere_library`);
  await migrate(cluster.address(template), join(process.cwd(), 'db/migrations'));
  project.provide('adminUrl', cluster.address('postgres'));
  project.provide('template', template);
  project.provide('administratorUrl', cluster.administrator('postgres'));
}
