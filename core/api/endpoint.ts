/** What a browser may ask of the server: one definition an endpoint, shared by the screen that asks and the route that answers. */
import {
  array,
  boolean,
  mixed,
  number,
  object,
  string,
  type AnyObject,
  type ISchema,
  type ObjectShape,
  type Schema,
} from 'yup';
import { uuid } from '../uuid';

export interface Endpoint<Body = unknown, Answer = unknown> {
  /** what is sent as JSON; the service that takes it checks it by this schema */ readonly body: Schema<Body>;
  /** what comes back as JSON; tests check each answer by this schema */ readonly answer: Schema<Answer>;
}

/** Nothing is sent, or nothing comes back. */
export const nothing = object({}).noUnknown().required();
/** What comes back of something that was made. */
export const made = object({ id: uuid().required() }).noUnknown().required();

interface Parts<Body extends Schema, Answer extends Schema> {
  body?: Body;
  answer?: Answer;
}

/** An endpoint; what is left out is empty. */
export function endpoint<Body extends Schema = typeof nothing, Answer extends Schema = typeof nothing>(
  parts: Parts<Body, Answer>,
): { readonly body: Body; readonly answer: Answer } {
  return {
    body: parts.body ?? (nothing as unknown as Body),
    answer: parts.answer ?? (nothing as unknown as Answer),
  };
}

// --- the words of answers: all is there, nothing else is

/** An object that has these fields and no other. */
export function exactly<Shape extends ObjectShape>(shape: Shape) {
  return object(shape).noUnknown().required();
}
/** Text, which may be empty. */
export const words = () => string().defined();
export const id = () => uuid().required();
export const count = () => number().integer().min(0).required();
export const figure = () => number().required();
export const flag = () => boolean().required();
/** A list, which may be empty. */
export function listOf<Item>(item: ISchema<Item, AnyObject>) {
  return array().of(item).required();
}
export const texts = () => listOf(string().defined());
/** What is passed on as it is: its type is told, its form is another module's to check. */
export function asIs<T>(): Schema<T> {
  return mixed().nullable().defined() as unknown as Schema<T>;
}
