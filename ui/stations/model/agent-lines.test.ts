import { describe, expect, test } from 'vitest';
import { agentLines } from './agent-lines';

describe('the lines for an agent', () => {
  test.each(['macos', 'linux'] as const)('on %s: one that fetches and enrols, one that runs', (system) => {
    const { enrol, run } = agentLines(system, 'http://studio:4310', 'ABCD-EFGH-JKMN');
    expect(enrol).toBe(
      'cd ~ && curl -fsS http://studio:4310/api/agent/program -o etagere-agent.mjs && node etagere-agent.mjs enrol --server http://studio:4310 --code ABCD-EFGH-JKMN',
    );
    expect(run).toBe('cd ~ && node etagere-agent.mjs install');
  });
  test('on Windows in the words of PowerShell', () => {
    const { enrol, run } = agentLines('windows', 'http://studio:4310', 'ABCD-EFGH-JKMN');
    expect(enrol).toContain('curl.exe -fsS http://studio:4310/api/agent/program');
    expect(enrol).toContain('if ($?) { node etagere-agent.mjs enrol');
    expect(run).toBe('cd $HOME; node etagere-agent.mjs install');
  });
});
