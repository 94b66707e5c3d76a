/**
 * Has the agent run whenever the person of this account is signed in, in the way of each system, without rights beyond
 * those of the account: a launch agent on macOS, a task at sign-in on Windows, a unit of the user's systemd on Linux.
 */
import { spawnSync } from 'node:child_process';
import { mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import type { AgentSystem } from './options';

export interface Installed {
  /** of the account */ home: string;
  /** the account's number; 0 where a system has none */ uid: number;
  /** the programs, absolute */ node: string;
  agent: string;
  /** what stands behind the program's name when it runs */ words: readonly string[];
}

interface Way {
  /** what is written where; null where the system keeps it itself */ file: { path: string; text: string } | null;
  /** that it begins now, and with every sign-in */ begin: readonly Line[];
  end: readonly Line[];
}
type Line = readonly [program: string, ...words: string[]];

const LABEL = 'etagere-agent';

const xml = (text: string): string =>
  text.replace(/[&<>"]/g, (sign) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[sign] ?? sign);

function launchAgent({ home, uid, node, agent, words }: Installed): Way {
  const path = join(home, 'Library/LaunchAgents', `${LABEL}.plist`);
  const list = [node, agent, ...words].map((word) => `    <string>${xml(word)}</string>`).join('\n');
  const text = `<?xml version="1.0" encoding="UTF-8"?>
<!DOCTYPE plist PUBLIC "-//Apple//DTD PLIST 1.0//EN" "http://www.apple.com/DTDs/PropertyList-1.0.dtd">
<plist version="1.0">
<dict>
  <key>Label</key>
  <string>${LABEL}</string>
  <key>ProgramArguments</key>
  <array>
${list}
  </array>
  <key>RunAtLoad</key>
  <true/>
  <key>KeepAlive</key>
  <true/>
</dict>
</plist>
`;
  return {
    file: { path, text },
    begin: [['launchctl', 'bootstrap', `gui/${uid}`, path]],
    end: [['launchctl', 'bootout', `gui/${uid}/${LABEL}`]],
  };
}

/** A word of a unit's command: systemd.service(5), "Command lines". */
const unitWord = (word: string): string =>
  `"${word.replace(/[\\"]/g, '\\$&').replace(/%/g, '%%').replace(/\$/g, '$$$$')}"`;

function userUnit({ home, node, agent, words }: Installed): Way {
  const unit = `${LABEL}.service`;
  const text = `[Unit]
Description=Etagere agent: what was approved lies where the editors of this account look for it

[Service]
ExecStart=${[node, agent, ...words].map(unitWord).join(' ')}
Restart=always
RestartSec=30

[Install]
WantedBy=default.target
`;
  return {
    file: { path: join(home, '.config/systemd/user', unit), text },
    begin: [
      ['systemctl', '--user', 'daemon-reload'],
      ['systemctl', '--user', 'enable', '--now', unit],
    ],
    end: [['systemctl', '--user', 'disable', '--now', unit]],
  };
}

/** A word of a command line of Windows, as its programs take it apart. */
const windowsWord = (word: string): string => `"${word.replace(/(\\*)"/g, '$1$1\\"').replace(/\\+$/, '$&$&')}"`;

function signInTask({ node, agent, words }: Installed): Way {
  const command = [node, agent, ...words].map(windowsWord).join(' ');
  const task = ['/TN', LABEL];
  return {
    file: null,
    begin: [
      ['schtasks', '/Create', '/F', '/SC', 'ONLOGON', '/RL', 'LIMITED', ...task, '/TR', command],
      ['schtasks', '/Run', ...task],
    ],
    end: [
      ['schtasks', '/End', ...task],
      ['schtasks', '/Delete', '/F', ...task],
    ],
  };
}

const ways: Record<AgentSystem, (installed: Installed) => Way> = {
  macos: launchAgent,
  linux: userUnit,
  windows: signInTask,
};

export const wayOf = (system: AgentSystem, installed: Installed): Way => ways[system](installed);

/** Runs a line of the system's; throws with what it said where it failed. */
function run([program, ...words]: Line): void {
  const { error, status, stderr } = spawnSync(program, words, { encoding: 'utf8' });
  if (error) throw new Error(`there is no ${program} here: ${error.message}`);
  if (status !== 0)
    throw new Error(`${[program, ...words].join(' ')} ended with ${status}: ${stderr.trim().slice(0, 300)}`);
}

/** Has it run from now on, and with every sign-in. Done again, it runs with the new words. */
export function install(system: AgentSystem, installed: Installed): void {
  const { file, begin, end } = wayOf(system, installed);
  // one that runs already with other words
  for (const line of end) quietly(line);
  if (file) {
    mkdirSync(dirname(file.path), { recursive: true });
    writeFileSync(file.path, file.text);
  }
  begin.forEach(run);
}

/** It runs no more. What it put where stays. */
export function uninstall(system: AgentSystem, installed: Installed): void {
  const { file, end } = wayOf(system, installed);
  end.forEach(quietly);
  if (file) rmSync(file.path, { force: true });
}

/** Where nothing runs there is nothing to be ended. */
function quietly(line: Line): void {
  try {
    run(line);
  } catch {
    // told by what comes of it
  }
}
