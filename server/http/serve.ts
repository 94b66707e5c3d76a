/** A route that answers an endpoint of `core/api`: what comes and what goes back are of the types that screens know. */
import 'server-only';
import { endpoints, type AnswerOf, type BodyOf, type EndpointName } from '@/core/api';
import { nothing } from '@/core/api/endpoint';
import type { Person } from '../people/roles';
import { body } from './body';
import { route } from './route';

/** Times go out as text. */
type Served<T> = T extends Date | string
  ? T | Date
  : T extends (infer Item)[]
    ? readonly Served<Item>[]
    : T extends object
      ? { [Key in keyof T]: Served<T[Key]> }
      : T;

interface Asked<Name extends EndpointName> {
  person: Person;
  /** as it came: the service checks it by the endpoint's schema */ body: BodyOf<Name>;
  /** the identifier in the address, checked; empty where there is none */ id: string;
  query: URLSearchParams;
  /** for what is no JSON */ request: Request;
}
/** Next hands routes without a place in their path nothing to fill it with. */
interface Context {
  params: Promise<{ id?: string; n?: string } | undefined>;
}
interface Limits {
  /** the most bytes of JSON that are read */ most?: number;
}

/** A bug of ours where the answer is not of the endpoint's form. Tests look at each; in use they are sent as they are. */
function checkAnswer(name: EndpointName, answer: unknown): void {
  if (!process.env.ETAGERE_CHECK_ANSWERS) return;
  const sent: unknown = JSON.parse(JSON.stringify(answer));
  try {
    endpoints[name].answer.validateSync(sent, { strict: true });
  } catch (error) {
    throw new Error(`the answer of ${name} is not of its form: ${(error as Error).message}`, { cause: error });
  }
}

/** Answers an endpoint for whoever is signed in. What the work does not return is an empty object. */
export function serve<Name extends EndpointName>(
  name: Name,
  work: (asked: Asked<Name>) => Promise<Served<AnswerOf<Name>> | undefined | void>,
  { most }: Limits = {},
): (request: Request, context: Context) => Promise<Response> {
  const takesJson = (endpoints[name].body as unknown) !== nothing;
  return route<Context>(async (person, request, { params }) => {
    const { id, n: place } = (await params) ?? {};
    const asked: Asked<Name> = {
      person,
      body: takesJson ? await body<BodyOf<Name> & object>(request, most) : ({} as BodyOf<Name>),
      id: id ?? place ?? '',
      query: new URL(request.url).searchParams,
      request,
    };
    const answer = (await work(asked)) ?? {};
    checkAnswer(name, answer);
    return answer;
  });
}
