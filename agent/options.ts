/** What the agent is asked with: verbs and options, what is usual where nothing is said, and what is told of them. */
import { resolve } from 'node:path';
import { parseArgs } from 'node:util';

const verbs = ['enrol', 'install', 'uninstall', 'once', 'run', 'carry', 'status', 'undo'] as const;
export type Verb = (typeof verbs)[number];

const systems = ['macos', 'windows', 'linux'] as const;
export type AgentSystem = (typeof systems)[number];

const systemOf: Partial<Record<NodeJS.Platform, AgentSystem>> = { darwin: 'macos', win32: 'windows', linux: 'linux' };

export const HELP = `etagere-agent: puts what was approved where the editors of this account look for it, and reports what they list.

  etagere-agent enrol --server URL --code CODE   once; the code is made on the station's page in Etagere
  etagere-agent install                          has it run from now on, whenever somebody is signed in at this account
  etagere-agent uninstall                        ends that; what lies in the editors' folders stays
  etagere-agent run                              reports, and applies what was approved, until it is stopped
  etagere-agent once                             the same, a single time
  etagere-agent carry FILE                       the same without a way to the server: FILE was made on the station's page,
                                                 and the answer that comes of it goes back there
  etagere-agent status                           what it is enrolled as, and whether a rollout is under way
  etagere-agent undo                             takes the last rollout back, without the server

  --root DIR     whose folders they are; usually the home folder of this account
  --state DIR    where the agent keeps its own files; usually .etagere-agent in there
  --system NAME  macos, windows or linux; usually that of this machine
  --every N      with run: seconds between reports, instead of what the server says
  --rate N       contents come at N kilobytes a second at most, where the line is shared
  --answer FILE  with carry: where the answer is written; usually beside what was carried
  --file-manager PROGRAM  is given the file that somebody wants to see, instead of the file manager of the system
  --proxy URL    the way out leads through this proxy; usually what HTTPS_PROXY, HTTP_PROXY and NO_PROXY say
  --authority F  a file in PEM form: who vouches for the server's certificate, where that is one of the house

It needs Node.js 20 or newer. Proxy and authority are kept when they are said with enrol. It writes only into the
folders of the editors that Etagere knows here, and takes newer versions of itself from its server alone.`;

interface Values {
  server?: string;
  code?: string;
  every?: string;
  /** kilobytes a second */ rate?: string;
  proxy?: string;
  /** a path, made whole */ authority?: string;
  /** a path, made whole */ answer?: string;
  'file-manager'?: string;
}

export type Asked =
  | { help: string }
  | { fault: string }
  | ({ root: string; state: string; system: AgentSystem; values: Values } & (
      { verb: Exclude<Verb, 'carry'> } | { verb: 'carry'; /** a path, made whole */ file: string }
    ));

const isOne = <Name extends string>(names: readonly Name[], text: string): text is Name =>
  (names as readonly string[]).includes(text);

/** @param words what stands behind the program's name */
export function readOptions(words: string[], here: { home: string; platform: NodeJS.Platform }): Asked {
  let read;
  try {
    read = parseArgs({
      args: words,
      allowPositionals: true,
      options: {
        help: { type: 'boolean', short: 'h' },
        root: { type: 'string' },
        system: { type: 'string' },
        state: { type: 'string' },
        server: { type: 'string' },
        code: { type: 'string' },
        every: { type: 'string' },
        rate: { type: 'string' },
        proxy: { type: 'string' },
        authority: { type: 'string' },
        answer: { type: 'string' },
        'file-manager': { type: 'string' },
      },
    });
  } catch (error) {
    return { fault: `${(error as Error).message.split('. ')[0] ?? ''}; see etagere-agent --help` };
  }
  const { positionals, values } = read;
  const [verb = 'help', file] = positionals;
  if (values.help || verb === 'help') return { help: HELP };
  if (!isOne(verbs, verb)) return { fault: `there is no verb "${verb}"; see etagere-agent --help` };
  const system = values.system ?? systemOf[here.platform] ?? '';
  if (!isOne(systems, system)) return { fault: '--system must be macos, windows or linux' };
  if (values.rate !== undefined && !(Number(values.rate) > 0))
    return { fault: '--rate must be a number of kilobytes a second, such as 500' };
  if (values.proxy !== undefined && !/^https?:\/\/[^\s/]+\/?$/.test(values.proxy))
    return { fault: '--proxy must be an address such as http://proxy.house:3128' };
  if (values.authority !== undefined) values.authority = resolve(values.authority);
  if (values.answer !== undefined) values.answer = resolve(values.answer);
  const root = resolve(values.root ?? here.home);
  const common = { root, state: resolve(values.state ?? `${root}/.etagere-agent`), system, values };
  if (verb !== 'carry') return { verb, ...common };
  return file ? { verb, file: resolve(file), ...common } : { fault: 'carry needs the file that was carried here' };
}
