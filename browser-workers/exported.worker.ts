/// <reference lib="webworker" />
/**
 * A preset against an editor's own exports, without it and with it: what our rendering makes of the same picture, and how
 * far the two are apart. The files stay in the browser.
 */
import { applyLook } from '@/core/look/apply';
import {
  differencePicture,
  pictureDifference,
  WHITE_DELTA_E,
  type PictureFigures,
} from '@/core/look/picture-difference';
import { applyPreset } from '@/core/preset/apply';
import { ask, Fault } from './ask';
import { pixelsOf, type Picture } from './pixels';
import { renderingOf, type Rendering } from './rendering';

declare const self: DedicatedWorkerGlobalScope;

export interface ExportedRequest {
  id: number;
  /** of the preset */ version: string;
  without: Blob;
  with: Blob;
  /** the frame of which the exports are, developed here; null to begin from the export without the preset */
  frame: string | null;
}
export interface ExportedPictures {
  editorWithout: ArrayBuffer;
  editorWith: ArrayBuffer;
  hereWithout: ArrayBuffer;
  hereWith: ArrayBuffer;
  difference: ArrayBuffer;
}
export interface ExportedFigures {
  /** with the preset, here against the editor */ with: PictureFigures;
  /** without it; null where both are the same picture */ without: PictureFigures | null;
  /** what the preset does in the editor */ effect: PictureFigures;
}
export type ExportedAnswer = { id: number } & (
  | { width: number; height: number; pictures: ExportedPictures; figures: ExportedFigures }
  | { error: string; remedy: string }
);

const LARGEST = 900;

const unreadable = (what: string): Fault =>
  new Fault(`The export ${what} cannot be read as a picture.`, 'Export it as JPEG or PNG.');

async function sizeOf(blob: Blob, what: string): Promise<{ width: number; height: number }> {
  const bitmap = await createImageBitmap(blob).catch(() => {
    throw unreadable(what);
  });
  const { width, height } = bitmap;
  bitmap.close();
  return { width, height };
}

/** Both exports in sRGB, no larger than is shown. */
async function exportsOf(request: ExportedRequest): Promise<[Picture, Picture]> {
  const [one, other] = await Promise.all([
    sizeOf(request.without, 'without the preset'),
    sizeOf(request.with, 'with the preset'),
  ]);
  if (one.width !== other.width || one.height !== other.height)
    throw new Fault(
      `The two exports are of different sizes: ${one.width} × ${one.height} and ${other.width} × ${other.height} pixels.`,
      'Export the same photo twice with the same settings, uncropped.',
    );
  const share = Math.min(1, LARGEST / Math.max(one.width, one.height));
  const size = {
    width: Math.max(1, Math.round(one.width * share)),
    height: Math.max(1, Math.round(one.height * share)),
  };
  const [before, after] = await Promise.all([request.without.arrayBuffer(), request.with.arrayBuffer()]);
  return Promise.all([pixelsOf(before, size, 'sRGB'), pixelsOf(after, size, 'sRGB')]);
}

/** More apart than this in their shape, a frame and an export are not of one photo. */
const SAME_SHAPE = 0.02;

/** What stands for the photo without the preset here. */
async function baseOf(frame: string | null, exported: Picture): Promise<Picture> {
  if (!frame) return exported;
  const { bytes } = await ask(`/api/frames/${frame}?w=900`);
  const own = await pixelsOf(bytes);
  const { width, height } = exported;
  if (Math.abs((own.width / own.height) * (height / width) - 1) > SAME_SHAPE)
    throw new Fault(
      'The frame has another shape than the exports: they are not of the same photo, or were cropped.',
      'Choose the frame that was exported, or none.',
    );
  return pixelsOf(bytes, { width, height });
}

function rendered(rendering: Rendering, { data }: Picture): Uint8ClampedArray {
  const out = new Uint8ClampedArray(data.length);
  if (rendering.kind === 'preset') applyPreset(rendering.effect, 1, data, out);
  else applyLook(rendering.look, 1, data, out);
  return out;
}

const figuresOf = ({ mean, p95, max }: PictureFigures): PictureFigures => ({ mean, p95, max });
const bufferOf = (pixels: Uint8ClampedArray): ArrayBuffer => pixels.slice().buffer;

async function compared(request: ExportedRequest): Promise<ExportedAnswer> {
  const [[before, after], rendering] = await Promise.all([exportsOf(request), renderingOf(request.version, {})]);
  const base = await baseOf(request.frame, before);
  const here = rendered(rendering, base);
  const difference = pictureDifference(after.data, here);
  const { width, height } = before;
  return {
    id: request.id,
    width,
    height,
    pictures: {
      editorWithout: bufferOf(before.data),
      editorWith: bufferOf(after.data),
      hereWithout: bufferOf(base.data),
      hereWith: bufferOf(here),
      difference: bufferOf(differencePicture(difference.values, WHITE_DELTA_E)),
    },
    figures: {
      with: figuresOf(difference),
      without: request.frame ? figuresOf(pictureDifference(before.data, base.data)) : null,
      effect: figuresOf(pictureDifference(before.data, after.data)),
    },
  };
}

self.onmessage = ({ data: request }: MessageEvent<ExportedRequest>) => {
  void compared(request).then(
    (answer) => self.postMessage(answer),
    (error: unknown) => {
      const told = error instanceof Fault ? error : new Fault('The two could not be compared.', 'Reload the page.');
      self.postMessage({ id: request.id, error: told.message, remedy: told.remedy } satisfies ExportedAnswer);
    },
  );
};
