/** A database of its own for a test file: a copy of the migrated template, with people of each role. */
import { randomBytes } from 'node:crypto';
import pg from 'pg';
import { afterAll, beforeAll, inject } from 'vitest';
import { closePool } from '../pool';
import { addPerson } from '../../people/service';
import type { Person, Role } from '../../people/roles';

export const people = {} as Record<Role, Person>;

/** Call at the top of a test file. */
export function withDatabase(): void {
  const name = `etagere_t_${randomBytes(6).toString('hex')}`;
  const admin = async (sql: string) => {
    const client = new pg.Client({ connectionString: inject('adminUrl') });
    await client.connect();
    try {
      await client.query(sql);
    } finally {
      await client.end();
    }
  };
  beforeAll(async () => {
    await admin(`create database ${name} template ${inject('template')}`);
    process.env.DATABASE_URL = inject('adminUrl').replace(/\/postgres$/, `/${name}`);
    const first = await addPerson(null, {
      name: 'Odile Wren',
      email: 'odile@test.example',
      role: 'librarian',
      password: 'a long password',
    });
    people.librarian = first;
    people.lead = await addPerson(first, {
      name: 'Piet Tallow',
      email: 'piet@test.example',
      role: 'lead',
      password: 'a long password',
    });
    people.retoucher = await addPerson(first, {
      name: 'Mirre Sand',
      email: 'mirre@test.example',
      role: 'retoucher',
      password: 'a long password',
    });
  });
  afterAll(async () => {
    await closePool();
    await dropping(() => admin(`drop database if exists ${name} with (force)`));
  });
}

const NOT_PERMITTED = '42501';

/** PostgreSQL's own cleaner may be at work in the database, and is not ours to end: it is through in a moment. */
async function dropping(drop: () => Promise<void>, tries = 50): Promise<void> {
  try {
    await drop();
  } catch (error) {
    if ((error as { code?: string }).code !== NOT_PERMITTED || tries === 0) throw error;
    await new Promise((done) => setTimeout(done, 200));
    await dropping(drop, tries - 1);
  }
}
