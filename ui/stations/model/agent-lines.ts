/** The lines that bring the agent onto a workstation, by its system: each is pasted whole. */
import { carriedName } from '@/core/sync/carried-name';

export type StationSystem = 'macos' | 'windows' | 'linux';

export interface AgentLines {
  /** where they are typed */ where: string;
  /** where Node.js comes from */ node: string;
  enrol: string;
  /** now, and whenever somebody is signed in at the account */ run: string;
}

const PROGRAM = 'etagere-agent.mjs';

/** How a file that was carried there is carried out; the program comes out of the file itself. */
export function carryLine(system: StationSystem, station: string): { where: string; carry: string } {
  const file = carriedName(station);
  const carry = `node ${PROGRAM} carry ${file}`;
  return system === 'windows'
    ? { where: 'in PowerShell', carry: `tar -xf ${file} ${PROGRAM}; if ($?) { ${carry} }` }
    : { where: 'in a terminal', carry: `unzip -o ${file} ${PROGRAM} && ${carry}` };
}

export function agentLines(system: StationSystem, server: string, code: string): AgentLines {
  const enrol = `node ${PROGRAM} enrol --server ${server} --code ${code}`;
  const run = `node ${PROGRAM} install`;
  if (system === 'windows')
    return {
      where: 'PowerShell, in the account of the person who works there',
      node: 'the installer from nodejs.org',
      enrol: `cd $HOME; curl.exe -fsS ${server}/api/agent/program -o ${PROGRAM}; if ($?) { ${enrol} }`,
      run: `cd $HOME; ${run}`,
    };
  return {
    where: 'a terminal, in the account of the person who works there',
    node: system === 'macos' ? 'the installer from nodejs.org' : 'the package of the distribution, or nodejs.org',
    enrol: `cd ~ && curl -fsS ${server}/api/agent/program -o ${PROGRAM} && ${enrol}`,
    run: `cd ~ && ${run}`,
  };
}
