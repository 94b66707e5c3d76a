/** The histogram of a picture: red, green and blue over one another, the ends left out of its height. */
import { contextOf } from '../kit/canvas';

const BARS = 128;
const HEIGHT = 48;
const TALLEST = 46;
const colors = ['#a03030', '#308030', '#3050b0'];

/** How many pixels (RGBA) have a channel's value in each of the bars. */
function countsOf(pixels: Uint8ClampedArray, channel: number): Float64Array {
  const counts = new Float64Array(BARS);
  for (let i = channel; i < pixels.length; i += 4) {
    const bar = (pixels[i] ?? 0) >> 1;
    counts[bar] = (counts[bar] ?? 0) + 1;
  }
  return counts;
}

export function paintHistogram(canvas: HTMLCanvasElement, pixels: Uint8ClampedArray): void {
  const counts = colors.map((_, channel) => countsOf(pixels, channel));
  const most = counts.reduce((most, bars) => bars.slice(1, BARS - 1).reduce((a, b) => Math.max(a, b), most), 1);
  const context = contextOf(canvas);
  context.clearRect(0, 0, BARS, HEIGHT);
  context.globalCompositeOperation = 'lighter';
  counts.forEach((bars, channel) => {
    context.fillStyle = colors[channel] ?? '#fff';
    bars.forEach((count, x) => {
      const height = Math.min(HEIGHT, (TALLEST * count) / most);
      context.fillRect(x, HEIGHT - height, 1, height);
    });
  });
  context.globalCompositeOperation = 'source-over';
}
