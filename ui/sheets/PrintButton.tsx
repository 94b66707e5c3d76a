'use client';
/** Prints the page, or saves it as a PDF, by the browser's own window. */
export function PrintButton() {
  return (
    <button className="button" onClick={() => window.print()}>
      Print
    </button>
  );
}
