import { string } from 'yup';

/** Yup's own check knows no version 7. */
export const uuid = () =>
  string().matches(/^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/, '${path} must be an identifier');
