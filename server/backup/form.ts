/**
 * The form of a backup: a ZIP with one entry a table, its rows as PostgreSQL's binary COPY has them, and a manifest at
 * its end. There is no statement in it: what is done with the rows is told by our own schema alone.
 */
import { array, number, object, string, type InferType } from 'yup';

export const FORM = 'etagere-backup';
export const MANIFEST = 'manifest.json';
export const MOST_MANIFEST_BYTES = 1 << 20;

export const entryOfTable = (table: string): string => `rows/${table}`;

const sha256 = () =>
  string()
    .required()
    .matches(/^[0-9a-f]{64}$/);
const count = () => number().integer().min(0).max(Number.MAX_SAFE_INTEGER).required();
const name = () => string().required().max(63);

export const manifestSchema = object({
  form: string().oneOf([FORM]).required(),
  revision: number().oneOf([1]).required(),
  madeAt: string().required().max(40),
  /** those that the tables were made by, in order */
  migrations: array()
    .of(
      object({ name: string().required().max(120), sha256: sha256() })
        .noUnknown()
        .required(),
    )
    .max(1000)
    .required(),
  tables: array()
    .of(
      object({ name: name(), columns: array().of(name()).max(200).required(), rows: count(), sha256: sha256() })
        .noUnknown()
        .required(),
    )
    .max(500)
    .required(),
  /** where each counter stands */
  sequences: array()
    .of(object({ name: name(), last: count() }).noUnknown().required())
    .max(500)
    .required(),
}).noUnknown();

export type Manifest = InferType<typeof manifestSchema>;
export type TableInBackup = Manifest['tables'][number];
