/** Hands a file over to the browser, which saves it. */

const KEPT_MS = 10_000;

export function saveFile(content: Blob, name: string): void {
  const address = URL.createObjectURL(content);
  const link = Object.assign(document.createElement('a'), { href: address, download: name });
  link.click();
  // a browser may fetch it a moment later
  setTimeout(() => URL.revokeObjectURL(address), KEPT_MS);
}
