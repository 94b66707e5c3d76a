/** Drawing on canvases of the page. */

/** The canvas' context in two dimensions. A browser that gives none is at the end of its memory. */
export function contextOf(
  canvas: HTMLCanvasElement,
  settings?: CanvasRenderingContext2DSettings,
): CanvasRenderingContext2D {
  const context = canvas.getContext('2d', settings);
  if (!context) throw new Error('the browser gave no canvas to draw on');
  return context;
}

/** RGBA pixels, the canvas as large as they are; `data-shown` counts the paintings. */
export function paint(canvas: HTMLCanvasElement, width: number, height: number, pixels: ArrayBuffer): ImageData {
  if (canvas.width !== width || canvas.height !== height) {
    canvas.width = width;
    canvas.height = height;
  }
  const data = new ImageData(new Uint8ClampedArray(pixels), width, height);
  contextOf(canvas).putImageData(data, 0, 0);
  canvas.dataset.shown = String(Number(canvas.dataset.shown ?? 0) + 1);
  return data;
}
