/** The verbs of looks. */
import { blend, compose, invert } from './look/combine';
import { evaluate, info, inspect, same } from './look/read';
import { apply, convert } from './look/write';
import { identity, match } from './look/make';
import type { Verb } from './verb';

export const verbs: Record<string, Verb> = {
  info,
  eval: evaluate,
  apply,
  convert,
  inspect,
  same,
  compose,
  blend,
  invert,
  identity,
  match,
};
