/** Completion for bash, zsh and fish, written from the definitions of the verbs. */
import { Problem } from '@/core/problem';
import { verb, type Alone, type Noun, type Verb } from './verb';

const shells = ['bash', 'zsh', 'fish'] as const;
type Shell = (typeof shells)[number];

type Nouns = Record<string, Noun>;
type Whole = Record<string, Alone>;

/** All that can be typed first, with what it is. */
interface Known {
  nouns: Nouns;
  alone: Whole;
}

interface Line {
  /** the noun and the verb, or the one word */ path: string;
  about: string;
  options: { name: string; about: string; words: readonly string[] }[];
}

const lineOf = (path: string, { about, options = {} }: Verb): Line => ({
  path,
  about,
  options: [
    ...Object.entries(options).map(([name, option]) => ({
      name: `--${name}`,
      about: option.about,
      words: option.words ?? [],
    })),
    { name: '--json', about: 'one JSON value', words: [] },
    { name: '--help', about: 'help', words: [] },
  ],
});

async function everyLine({ nouns, alone }: Known): Promise<Line[]> {
  const lines: Line[] = [];
  for (const [noun, { verbs }] of Object.entries(nouns))
    for (const [name, one] of Object.entries(await verbs())) lines.push(lineOf(`${noun} ${name}`, one));
  for (const [name, { verb: one }] of Object.entries(alone)) lines.push(lineOf(name, await one()));
  return lines;
}

const verbsOf = (lines: readonly Line[], noun: string): string[] =>
  lines.filter(({ path }) => path.startsWith(`${noun} `)).map(({ path }) => path.slice(noun.length + 1));

/** zsh takes bash's by its own bridge. */
function forBash(lines: readonly Line[], { nouns, alone }: Known): string {
  const top = [...Object.keys(nouns), ...Object.keys(alone)].join(' ');
  const verbs = Object.keys(nouns).map((noun) => `    ${noun}) words="${verbsOf(lines, noun).join(' ')}" ;;`);
  const options = lines.map(
    ({ path, options: known }) => `    "${path}") words="${known.map(({ name }) => name).join(' ')}" ;;`,
  );
  const behind = lines.flatMap(({ path, options: known }) =>
    known
      .filter(({ words }) => words.length)
      .map(({ name, words }) => `    "${path} ${name}") words="${words.join(' ')}" ;;`),
  );
  return `_etagere() {
  local current="\${COMP_WORDS[COMP_CWORD]}" before="\${COMP_WORDS[COMP_CWORD-1]}" words="" path=""
  path="\${COMP_WORDS[1]}"
  [[ -n "\${COMP_WORDS[2]}" && "\${COMP_WORDS[2]}" != -* ]] && path="$path \${COMP_WORDS[2]}"
  case "\${COMP_WORDS[1]}" in ${Object.keys(alone).join('|')}) path="\${COMP_WORDS[1]}" ;; esac
  if [[ $COMP_CWORD -eq 1 ]]; then
    words="${top}"
  elif [[ "$current" == -* ]]; then
    case "$path" in
${options.join('\n')}
    esac
  else
    case "$path $before" in
${behind.join('\n')}
    esac
    if [[ -z "$words" && $COMP_CWORD -eq 2 ]]; then
      case "\${COMP_WORDS[1]}" in
${verbs.join('\n')}
      esac
    fi
  fi
  if [[ -n "$words" ]]; then COMPREPLY=($(compgen -W "$words" -- "$current"));
  else COMPREPLY=($(compgen -f -- "$current")); fi
}
complete -o filenames -F _etagere etagere bin/etagere
`;
}

const quoted = (text: string): string => `'${text.replaceAll("'", "\\'")}'`;

function forFish(lines: readonly Line[], { nouns, alone }: Known): string {
  const out = ['complete -c etagere -n __fish_use_subcommand -f'];
  for (const [name, { about }] of [...Object.entries(nouns), ...Object.entries(alone)])
    out.push(`complete -c etagere -n __fish_use_subcommand -f -a ${name} -d ${quoted(about)}`);
  for (const { path, about, options } of lines) {
    const [noun = '', verbName] = path.split(' ');
    if (verbName) {
      const known = verbsOf(lines, noun).join(' ');
      const here = `__fish_seen_subcommand_from ${noun}; and not __fish_seen_subcommand_from ${known}`;
      out.push(`complete -c etagere -n ${quoted(here)} -f -a ${verbName} -d ${quoted(about)}`);
    }
    const there = path
      .split(' ')
      .map((word) => `__fish_seen_subcommand_from ${word}`)
      .join('; and ');
    for (const { name, about: what, words } of options)
      out.push(
        `complete -c etagere -n ${quoted(there)} -l ${name.slice(2)} -d ${quoted(what)}` +
          (words.length ? ` -x -a ${quoted(words.join(' '))}` : ''),
      );
  }
  return `${out.join('\n')}\n`;
}

const writers: Record<Shell, (lines: readonly Line[], known: Known) => string> = {
  bash: forBash,
  zsh: (lines, known) => `autoload -U +X bashcompinit && bashcompinit\n${forBash(lines, known)}`,
  fish: forFish,
};

export const completionOf = (nouns: Nouns, alone: Whole): Verb =>
  verb({
    about: 'a script that completes nouns, verbs and options',
    takes: '<shell>',
    names: true,
    example: 'completion bash > ~/.local/share/bash-completion/completions/etagere',
    run: async ({ files: [shell = ''] }) => {
      const write = writers[shell as Shell];
      if (!write)
        throw new Problem(
          'usage',
          `There is no completion for ${shell}.`,
          'shell',
          `Name one of ${shells.join(', ')}.`,
        );
      const known = { nouns, alone };
      return write(await everyLine(known), known);
    },
  });
