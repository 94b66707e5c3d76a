/** The part of culori that the tests use as an oracle; it ships no types. */
declare module 'culori' {
  export interface Color {
    mode: string;
    [channel: string]: string | number | undefined;
  }
  export function converter(mode: string): (c: Color) => Color;
  export function differenceCiede2000(): (a: Color, b: Color) => number;
}
