/** Checks what comes from outside against its schema. */
import { ValidationError } from 'yup';
import { Problem } from '@/core/problem';

interface Schema<T> {
  validateSync(value: unknown, options: { abortEarly: boolean }): T;
}

/** The value as the schema has it; throws a Problem that names the first field that is wrong. */
export function checked<T>(schema: Schema<T>, value: unknown): T {
  const remedy = 'Correct the input and try again.';
  try {
    return schema.validateSync(value, { abortEarly: false });
  } catch (error) {
    if (error instanceof ValidationError) {
      const where = error.inner[0]?.path ?? error.path ?? 'input';
      throw new Problem('input-invalid', error.errors.join(' '), where, remedy);
    }
    // Yup trims and matches before it looks whether there is a string to trim
    if (error instanceof TypeError)
      throw new Problem('input-invalid', 'A field holds another kind of value than it takes.', 'input', remedy);
    throw error;
  }
}
