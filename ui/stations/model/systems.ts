/** Systems as people call them. */
export const systemNames: Record<string, string> = { macos: 'macOS', windows: 'Windows', linux: 'Linux' };
