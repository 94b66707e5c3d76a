/** From the definitions of verbs to a program of commander's: parsing, help with an example, and faults as Problems. */
import { Command, CommanderError, Option as CommanderOption } from 'commander';
import { Problem } from '@/core/problem';
import { alone, nouns } from './nouns';
import { runVerb } from './run';
import type { Option, Verb } from './verb';

const PROGRAM = 'etagere';

const flagsOf = (name: string, { value, short }: Option): string =>
  `${short ? `-${short}, ` : ''}--${name}${value ? ` <${value}>` : ''}`;

/** Words are offered by completion and told in help; that no other is taken is for the verb to say. */
const aboutOf = ({ about, words }: Option): string => (words ? `${about}: ${words.join(', ')}` : about);

function addOption(command: Command, name: string, option: Option): void {
  const made = new CommanderOption(flagsOf(name, option), aboutOf(option));
  if (option.many) made.default([]).argParser((value, before: unknown) => [...(before as string[]), value]);
  command.addOption(made);
}

/** Names as they are typed: commander hands `--black-point` on as blackPoint. */
const typedName = (name: string): string => name.replace(/-(\w)/g, (_, letter: string) => letter.toUpperCase());

function addVerb(parent: Command, name: string, verb: Verb, path: string): Command {
  const command = parent
    .command(name)
    .description(verb.about)
    .exitOverride()
    .allowExcessArguments(false)
    .helpOption('--help', 'what it does');
  for (const part of verb.takes?.split(' ') ?? []) command.argument(part);
  for (const [option, definition] of Object.entries(verb.options ?? {})) addOption(command, option, definition);
  command.option('--json', 'one JSON value, and nothing else');
  command.addHelpText('after', `\nFor example:\n  ${PROGRAM} ${verb.example}\n`);
  command.action(async (...given: unknown[]) => {
    const args = given.slice(0, command.registeredArguments.length).flat().filter(Boolean) as string[];
    const all = command.opts<Record<string, unknown>>();
    const names = Object.keys(verb.options ?? {});
    const options = Object.fromEntries(names.map((option) => [option, all[typedName(option)] ?? undefined]));
    await runVerb(verb, { args, options, json: all.json === true, path });
  });
  return command;
}

const shell = (name: string, about: string): Command =>
  new Command(name).description(about).exitOverride().helpCommand(false).helpOption('--help', 'what it does');

/** The program with the verbs of one noun; of the others it knows the names. */
export async function programFor(noun: string): Promise<Command> {
  const program = shell(PROGRAM, 'The library of looks, presets and profiles, for scripts.');
  program.usage('<noun> <verb> …').configureOutput({ writeErr: () => {} });
  program.addHelpText('after', `\nFor example:\n  ${PROGRAM} look info amber.cube\n  ${PROGRAM} look --help\n`);
  for (const [name, { about, verbs }] of Object.entries(nouns)) {
    const command = shell(name, about);
    command.configureOutput({ writeErr: () => {} });
    program.addCommand(command);
    if (name !== noun) continue;
    for (const [verbName, verb] of Object.entries(await verbs()))
      addVerb(command, verbName, verb, `${name} ${verbName}`);
    command.argument('[verb]').usage('<verb> …');
    command.action((word: string | undefined) => {
      throw new Problem(
        'usage',
        word ? `${name} has no verb ${word}.` : `${name} needs a verb.`,
        'command line',
        `Verbs of ${name}: ${command.commands.map((one) => one.name()).join(', ')}.`,
      );
    });
  }
  for (const [name, { about, verb }] of Object.entries(alone)) {
    if (name === noun) addVerb(program, name, await verb(), name);
    else program.addCommand(shell(name, about));
  }
  return program;
}

/** A fault of the command line as commander tells it, in our words; null where nothing is wrong, as after help. */
export function problemIn(error: CommanderError, path: string): Problem | null {
  if (error.exitCode === 0) return null;
  return new Problem(
    'usage',
    `${error.message.replace(/^error: /, '').replace(/^\w/, (letter) => letter.toUpperCase())}.`.replace(/\.\.$/, '.'),
    'command line',
    `See ${PROGRAM} ${path} --help.`,
  );
}
