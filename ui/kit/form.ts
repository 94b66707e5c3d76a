'use client';
/** Forms whose fields are checked, before they are sent, by the schema of the endpoint that takes them. */
import { yupResolver } from '@hookform/resolvers/yup';
import {
  useForm,
  type DefaultValues,
  type FieldError,
  type FieldValues,
  type Path,
  type Resolver,
  type UseFormReturn,
} from 'react-hook-form';
import type { ObjectSchema } from 'yup';

type AnyObjectSchema = ObjectSchema<Record<string, unknown>>;

const checking = (schema: unknown) => yupResolver(schema as AnyObjectSchema) as unknown as Resolver<FieldValues>;

/** @param schema the endpoint's body; what it says of a field stands below that field */
export const useSchemaForm = <Fields extends FieldValues>(
  schema: unknown,
  defaultValues: DefaultValues<Fields>,
): UseFormReturn<Fields> => useForm<Fields>({ defaultValues, resolver: checking(schema) as never });

/**
 * A form that is typed in another shape than it is sent in, such as a list with commas.
 * @param bodyOf makes the body of what is typed; that is what the schema checks and what the form hands on
 */
export const useWrittenForm = <Fields extends FieldValues, Body extends FieldValues>(
  schema: unknown,
  bodyOf: (fields: Fields) => Body,
  defaultValues: DefaultValues<Fields>,
): UseFormReturn<Fields, unknown, Body> =>
  useForm<Fields, unknown, Body>({
    defaultValues,
    resolver: ((fields, context, options) => checking(schema)(bodyOf(fields), context, options as never)) as Resolver<
      Fields,
      unknown,
      Body
    >,
  });

type Told = FieldError | Record<string, FieldError | undefined> | undefined;

/** What the schema says of a field, if it says anything; of a list, what it says of the first entry that is wrong. */
export function problemWith<Fields extends FieldValues, Body extends FieldValues>(
  form: UseFormReturn<Fields, unknown, Body>,
  field: Path<Fields>,
): string | undefined {
  const told = form.getFieldState(field, form.formState).error as Told;
  if (!told) return undefined;
  if (typeof told.message === 'string') return told.message;
  const first = Object.values(told).find((entry) => entry && typeof entry === 'object' && 'message' in entry);
  return (first as FieldError | undefined)?.message;
}

const messagesIn = (told: unknown): string[] => {
  if (typeof told !== 'object' || told === null) return [];
  if ('message' in told && typeof told.message === 'string') return [told.message];
  return Object.values(told).flatMap(messagesIn);
};

/** All that the schema says, for a form whose fields have no room for it below them: no press is without an answer. */
export const problemsIn = <Fields extends FieldValues, Body extends FieldValues>(
  form: UseFormReturn<Fields, unknown, Body>,
): string => messagesIn(form.formState.errors).join(' ');
