/** What people call a browser, by what it says of itself; its own words where that is not known. */
const browsers: [RegExp, string][] = [
  [/Edg\//, 'Edge'],
  [/Firefox\//, 'Firefox'],
  [/Chrome\/|Chromium\//, 'Chrome'],
  [/Safari\//, 'Safari'],
];
const systems: [RegExp, string][] = [
  [/Windows/, 'Windows'],
  [/iPhone|iPad/, 'iOS'],
  [/Mac OS X/, 'macOS'],
  [/Android/, 'Android'],
  [/Linux/, 'Linux'],
];
const named = (names: [RegExp, string][], agent: string): string | undefined =>
  names.find(([pattern]) => pattern.test(agent))?.[1];

export function browserOf(agent: string): string {
  const browser = named(browsers, agent);
  const system = named(systems, agent);
  if (browser && system) return `${browser} on ${system}`;
  return browser ?? (agent.slice(0, 60) || 'an unknown browser');
}
