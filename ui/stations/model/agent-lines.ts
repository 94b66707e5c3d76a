/** The lines that bring the agent onto a workstation, by its system: each is pasted whole. */

export type StationSystem = 'macos' | 'windows' | 'linux';

export interface AgentLines {
  /** where they are typed */ where: string;
  /** where Node.js comes from */ node: string;
  enrol: string;
  run: string;
}

const PROGRAM = 'etagere-agent.mjs';

export function agentLines(system: StationSystem, server: string, code: string): AgentLines {
  const enrol = `node ${PROGRAM} enrol --server ${server} --code ${code}`;
  const run = `node ${PROGRAM} run`;
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
