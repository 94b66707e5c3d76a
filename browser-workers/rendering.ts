/** What a version does to colors, as the server answers it: a table, or a preset's settings, which are evaluated here. */
import type { Look } from '@/core/look/look';
import { sampler, type Evaluate } from '@/core/look/sample';
import { evaluateOf, type PresetEffect } from '@/core/preset/apply';
import type { Settings } from '@/core/preset/kinds';
import { ask, headerOf } from './ask';

export type Rendering = { kind: 'table'; look: Look } | { kind: 'preset'; effect: PresetEffect };

/** As much of an answer as is rendered by. */
interface PresetAnswer {
  settings: Settings;
  called: { versionId: string; strength: number } | null;
}

const path = (version: string, query: Record<string, string | number>): string =>
  `/api/versions/${version}/table?${new URLSearchParams(Object.entries(query).map(([key, value]) => [key, `${value}`]))}`;

function tableOf(headers: Headers, bytes: ArrayBuffer): Look {
  const about = headerOf<Pick<Look, 'kind' | 'size' | 'domain'>>(headers, 'x-look');
  return { ...about, format: 'cube', table: new Float32Array(bytes), title: '', comments: [], warnings: [] };
}

/** The look that a preset calls is rendered by its whole table. */
async function calledLook(called: PresetAnswer['called']): Promise<PresetEffect['look']> {
  if (!called) return null;
  const { headers, bytes } = await ask(path(called.versionId, {}));
  return { look: tableOf(headers, bytes), strength: called.strength / 100 };
}

/** @param query how a table is asked for: its points, and the encoding that it is read in */
export async function renderingOf(version: string, query: Record<string, string | number>): Promise<Rendering> {
  const { headers, bytes } = await ask(path(version, query));
  if (headerOf<{ kind: string }>(headers, 'x-look').kind !== 'preset')
    return { kind: 'table', look: tableOf(headers, bytes) };
  const { settings, called } = JSON.parse(new TextDecoder().decode(bytes)) as PresetAnswer;
  return { kind: 'preset', effect: { settings, look: await calledLook(called) } };
}

/** For single colors, at full strength. */
export const evaluateBy = (rendering: Rendering): Evaluate =>
  rendering.kind === 'preset' ? evaluateOf(rendering.effect) : sampler(rendering.look);
