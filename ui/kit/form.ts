'use client';
/** Forms whose fields are checked, before they are sent, by the schema of the endpoint that takes them. */
import { yupResolver } from '@hookform/resolvers/yup';
import { useForm, type DefaultValues, type FieldValues, type Path, type UseFormReturn } from 'react-hook-form';
import type { ObjectSchema } from 'yup';

type AnyObjectSchema = ObjectSchema<Record<string, unknown>>;

/** @param schema the endpoint's body; what it says of a field stands below that field */
export const useSchemaForm = <Fields extends FieldValues>(
  schema: unknown,
  defaultValues: DefaultValues<Fields>,
): UseFormReturn<Fields> =>
  useForm<Fields>({ defaultValues, resolver: yupResolver(schema as AnyObjectSchema) as never });

/** What the schema says of a field, if it says anything. */
export const problemWith = <Fields extends FieldValues>(
  form: UseFormReturn<Fields>,
  field: Path<Fields>,
): string | undefined => form.getFieldState(field, form.formState).error?.message;
