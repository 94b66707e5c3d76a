/** A chart as samples, row by row, for whoever writes the picture. */
import { layoutOf, PATCH, type ChartName, type Layout } from './layout';

export interface ChartPicture {
  width: number;
  height: number;
  layout: Layout;
  /** interleaved RGB of one depth */ data: Uint8Array | Uint16Array;
}

/** The chart for rendered files: sRGB code values of 8 or 16 bits, rounded half up. */
export function makeChart(name: ChartName): ChartPicture {
  const layout = layoutOf(name);
  const { columns, rows, colors } = layout;
  const width = columns * PATCH;
  const top = name.kind === '8 bits' ? 255 : 65535;
  const stride = width * 3;
  const data = name.kind === '8 bits' ? new Uint8Array(stride * rows * PATCH) : new Uint16Array(stride * rows * PATCH);
  for (let row = 0; row < rows; row++) {
    const first = row * PATCH * stride;
    for (let x = 0; x < width; x++) {
      const patch = (row * columns + Math.floor(x / PATCH)) * 3;
      for (let c = 0; c < 3; c++) data[first + x * 3 + c] = Math.floor(colors[patch + c]! * top + 0.5);
    }
    for (let y = 1; y < PATCH; y++) data.copyWithin(first + y * stride, first, first + stride);
  }
  return { width, height: rows * PATCH, layout, data };
}
