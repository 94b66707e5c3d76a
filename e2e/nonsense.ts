/** Bodies that are nearly right: what an endpoint's schema takes, with one field at a time filled with nonsense. */
import type { Schema, SchemaDescription, SchemaFieldDescription } from 'yup';

const SOME_ID = '01a210e5-4862-76ff-8bf1-cca38cebf5bd';

const nonsense: unknown[] = [
  null,
  '',
  'toString',
  '__proto__',
  '\u0000',
  '\ud83d',
  'x'.repeat(70_000),
  -1,
  1e30,
  0.5,
  true,
  [],
  {},
  [null],
  { constructor: 1 },
  'nowhere',
  "' or 1=1 --",
];

type Described = SchemaFieldDescription & Partial<SchemaDescription> & { fields?: unknown; innerType?: unknown };

/** A value that the schema may well take. */
function plausible(described: Described): unknown {
  const { type, oneOf = [], tests = [], fields, innerType } = described;
  if (oneOf.length) return oneOf[0];
  switch (type) {
    case 'object':
      return Object.fromEntries(
        Object.entries((fields ?? {}) as Record<string, Described>).map(([name, field]) => [name, plausible(field)]),
      );
    case 'array':
      return innerType ? [plausible(innerType as Described)] : [];
    case 'number':
      return Number(tests.find(({ name }) => name === 'min')?.params?.min ?? 1);
    case 'boolean':
      return true;
    case 'date':
      return '2031-05-06T20:30:00.000Z';
    case 'string':
      return tests.some(({ name }) => name === 'matches') ? SOME_ID : 'x';
    default:
      return {};
  }
}

/** The places of a value, as paths to its fields and to the first entries of its lists. */
function placesIn(value: unknown, path: (string | number)[] = []): (string | number)[][] {
  if (typeof value !== 'object' || value === null) return [path];
  return [path, ...Object.entries(value).flatMap(([name, part]) => placesIn(part, [...path, name]))];
}

function withAt(value: unknown, path: (string | number)[], put: unknown): unknown {
  const [name, ...rest] = path;
  if (name === undefined) return put;
  const copy = (Array.isArray(value) ? [...(value as unknown[])] : { ...(value as object) }) as Record<string, unknown>;
  copy[String(name)] = withAt(copy[String(name)], rest, put);
  return copy;
}

/** As JSON; the first is what the schema may well take. */
export function nearlyRight(schema: Schema): string[] {
  const base = plausible(schema.describe() as Described);
  const bodies = placesIn(base).flatMap((path) => nonsense.map((put) => withAt(base, path, put)));
  return [base, ...bodies].map((body) => JSON.stringify(body));
}

/** A body that the schema may well take. */
export const plausibleBody = (schema: Schema): unknown => plausible(schema.describe() as Described);
