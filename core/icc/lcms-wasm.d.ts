/** What we use of Little CMS compiled to WebAssembly; the package brings no types of its own. */
declare module 'lcms-wasm' {
  export interface Lcms {
    HEAPU8: Uint8Array;
    HEAPF32: Float32Array;
    _malloc(bytes: number): number;
    _free(at: number): void;
    ccall(name: string, returns: 'number' | undefined, types: 'number'[], values: number[]): number;
    cmsCloseProfile(profile: number): void;
    cmsCreate_sRGBProfile(): number;
    cmsCreateXYZProfile(): number;
    cmsCreateLab4Profile(white: number[] | null): number;
    cmsCreateTransform(
      from: number,
      fromFormat: number,
      to: number,
      toFormat: number,
      intent: number,
      flags: number,
    ): number;
    cmsDeleteTransform(transform: number): void;
  }
  export function instantiate(options?: { print?: (t: string) => void; printErr?: (t: string) => void }): Promise<Lcms>;
}
